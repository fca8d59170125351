/** The longest span and effort a step may have: 60 working days, 200 hours. */
export const SPAN_LIMIT_DAYS = 60;
export const EFFORT_LIMIT_MINUTES = 200 * 60;
