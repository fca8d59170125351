export { CoverWords, MarkedMedium } from './marked-medium';
export { MarkedText } from './marked-text';
export { MarkNumber, type Mark } from './mark';
