export * from './stretch.js';
export * from './place.js';
