export { PlanningModule } from './planning.module.js';
export * from './calendars.js';
export * from './piece-state.js';
export { predict, predictCandidates } from './predict.js';
export { loadOpenSteps, predictSteps, storedPrediction } from './reckon-prediction.js';
export * from './replan.js';
export * from './routes.js';
export { decisionFacts, goneFrom, toAsked, type AskedRow } from './sign-off-facts.js';
export { addRoute, archiveRoute, editRoute, makeRoute, renameSkillsOfRoutes } from './use-cases/edit-route.js';
