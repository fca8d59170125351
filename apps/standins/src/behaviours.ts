/** How a simulated channel can be told to behave. */
export const BEHAVIOURS = {
  fine: 'publishes and says so',
  later: 'takes it, and publishes three seconds later',
  slow: 'publishes, and takes longer to say so than anybody waits',
  loses: 'publishes, and its answer gets lost',
  silent: 'publishes nothing and says nothing, and says what became of it when it is asked',
  vague: 'publishes nothing, breaks down, and can never say for sure what became of it',
  away: 'breaks off whatever is asked of it',
  refuses: 'refuses what it gets',
  limits: 'says that too much comes',
} as const;
export type Behaviour = keyof typeof BEHAVIOURS;
