import type { CoverageShape } from '@zesting/contract';

/** "2 of 5 channels". */
export const coverageWords = ({ covered, chosen }: CoverageShape): string => `${covered} of ${chosen} channels`;

/** "Nothing yet on Blog, Newsletter." Empty where all have something. */
export const missingWords = ({ missing }: CoverageShape): string => (missing.length === 0 ? '' : `Nothing yet on ${missing.join(', ')}.`);
