export {
  fitOf,
  isOnTheme,
  rankFor,
  THEME_LIKE_ENOUGH,
  wordsOfTheme,
  IN_A_ROW,
  OWED,
  SAME_SUBJECT,
  type Candidate,
  type Fit,
  type FitReason,
  type Misfit,
  type OpenSlot,
  type SlottingCase,
} from './fit.js';
export { chosenIn, modelOf, type SlottingModel } from './model.js';
export { isFeasible, proposalOf, propose, valueOf, type Proposal, type ProposedLine } from './propose.js';
