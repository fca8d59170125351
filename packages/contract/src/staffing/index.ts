export * from './shapes.js';
export * from './bodies.js';
