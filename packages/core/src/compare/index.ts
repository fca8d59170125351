export * from './text.js';
export * from './content.js';
