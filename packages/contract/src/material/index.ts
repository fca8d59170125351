export * from './bodies.js';
export * from './shapes.js';
