export * from './day.js';
export * from './zoned.js';
export * from './month.js';
