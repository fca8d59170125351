export { CoverWords, MarkedMedium } from './marked-medium';
export { MarkedText } from './marked-text';
export { isIn, MarkNumber, type Mark } from './mark';
