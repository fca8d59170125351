import { TextDecoder, TextEncoder } from 'node:util';

// every browser has them, jsdom has not; the router needs them
Object.assign(globalThis, { TextEncoder, TextDecoder });
