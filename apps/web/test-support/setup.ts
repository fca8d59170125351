import { TextDecoder, TextEncoder } from 'node:util';
import { deserialize, serialize } from 'node:v8';

// every browser has them, jsdom has not; the router needs them
Object.assign(globalThis, { TextEncoder, TextDecoder });
// and the layout of routes this one
globalThis.structuredClone ??= (value) => deserialize(serialize(value));
// nor these, which toasts hold on to
if (typeof Element !== 'undefined')
  Object.assign(Element.prototype, { setPointerCapture: () => undefined, releasePointerCapture: () => undefined });
