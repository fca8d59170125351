/** Who does which step: what somebody else could take of one who is away or has too much, and who takes the steps that nobody has. */
export * from './give-away.js';
export * from './roster.js';
export * from './roster-model.js';
