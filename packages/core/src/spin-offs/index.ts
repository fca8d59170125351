export * from './facts.js';
export * from './slides.js';
export * from './spread.js';
