export * from './survival.js';
export * from './chance.js';
export * from './brier.js';
