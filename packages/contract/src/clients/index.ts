export * from './bodies.js';
export * from './channel-bodies.js';
export * from './brand-bodies.js';
export * from './policy-bodies.js';
export * from './channel-kinds.js';
export * from './shapes.js';
export * from './observance-bodies.js';
export * from './observance-shapes.js';
