/** So many lines a step's checklist has at most, and so long each is. */
export const CHECKLIST_LIMIT = 20;
export const CHECKLIST_LINE_LIMIT = 120;
/** The longest span and effort a step may have: 60 working days, 200 hours. */
export const SPAN_LIMIT_DAYS = 60;
export const EFFORT_LIMIT_MINUTES = 200 * 60;
