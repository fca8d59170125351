export * from './day.js';
export * from './zoned.js';
