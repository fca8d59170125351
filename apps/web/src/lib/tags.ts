/** Tags as somebody types them: apart by spaces or commas, with number signs or without; their order is kept. */
export const toTags = (text: string): string[] => text.split(/[\s,]+/).flatMap((tag) => tag.replace(/^#+/, '') || []);

/** Tags as they are written: with their number signs, apart by spaces. */
export const tagWords = (tags: readonly string[]): string => tags.map((tag) => `#${tag}`).join(' ');
