import { TextDecoder, TextEncoder } from 'node:util';

// every browser has them, jsdom has not; the router needs them
Object.assign(globalThis, { TextEncoder, TextDecoder });
// nor these, which toasts hold on to
if (typeof Element !== 'undefined')
  Object.assign(Element.prototype, { setPointerCapture: () => undefined, releasePointerCapture: () => undefined });
