export * from './kinds.js';
export * from './route.js';
export * from './path.js';
export * from './change.js';
export * from './along.js';
export * from './limits.js';
