export * from './bodies.js';
export * from './case.js';
export * from './filling-shapes.js';
export * from './idea-bodies.js';
export * from './idea-shapes.js';
export * from './month-shapes.js';
export * from './shapes.js';
