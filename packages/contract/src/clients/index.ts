export * from './bodies.js';
export * from './brand.js';
export * from './policy.js';
export * from './channel-kinds.js';
export * from './shapes.js';
