export { daysOfRule, readRule } from './rule.js';
export { slotsOf, type RhythmRule, type Slot } from './slots.js';
export { monthPattern, ruleOf, toPattern, type Pattern } from './pattern.js';
export { inMonth } from './in-month.js';
