export * from './bodies.js';
export * from './channel-kinds.js';
export * from './shapes.js';
