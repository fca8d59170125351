export { CoverWords, MarkedMedium } from './marked-medium';
export { SlidePicture } from './slide-picture';
export { MarkedText } from './marked-text';
export { isIn, MarkNumber, type Mark } from './mark';
