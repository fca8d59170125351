export { asProse, readProse, writeProse } from './marks.js';
export { headingMarks, linesIn, proseHtml, proseWords, wordCount, wordsBetween } from './reading.js';
export { isSafeLink, type ProseBlock, type ProseItem, type ProseRun, type ReadRun } from './model.js';
