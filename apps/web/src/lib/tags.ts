/** Tags as they are written: as core counts them. */
export { writtenTags as tagWords } from '@zesting/core';

/** Tags as somebody types them: apart by spaces or commas, with number signs or without; their order is kept. */
export const toTags = (text: string): string[] => text.split(/[\s,]+/).flatMap((tag) => tag.replace(/^#+/, '') || []);
