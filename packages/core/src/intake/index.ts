/** Intake: what a form asks, which of it is shown, whether the answers will do, and where a request goes by them. */
export * from './form.js';
export { answerServing, loopIn, meets, readForm, type ReadForm } from './reading.js';
export * from './answers.js';
export { factsMissing, factsNotAsked } from './facts.js';
export * from './sorting.js';
export * from './faults.js';
export * from './document.js';
