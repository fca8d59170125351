export { PlanningModule } from './planning.module.js';
export * from './calendars.js';
export * from './piece-state.js';
export { dueDuties, knownDays, loadDuties, MISSED_DAYS, waitingDays, type DueDuty, type DutySource, type KnownDutyDay } from './duties.js';
export { loadOtherHours, openPlacementWork, type OpenPlacementWork } from './placement-work.js';
export type { PathOutcome, PathOutcomeFailure, TriedChange } from './among-work.js';
export {
  bestOfChoices,
  helpsFor,
  outcomeOfAbsence,
  outcomeOfPath,
  predict,
  delaysByCandidates,
  predictCandidates,
  rosterFor,
  takenHours,
} from './predict.js';
export type { AblePerson, GivenOutcome } from './roster.js';
export { loadOpenSteps, predictSteps, storedPrediction } from './reckon-prediction.js';
export { ableFor } from './queries/able.js';
export { daysOff } from './queries/days-off.js';
export * from './replan.js';
export * from './outlook.js';
export * from './routes.js';
export { decisionFacts, goneFrom, toAsked, type AskedRow } from './sign-off-facts.js';
export { addRoute, archiveRoute, editRoute, makeRoute, renameSkillsOfRoutes } from './use-cases/edit-route.js';
