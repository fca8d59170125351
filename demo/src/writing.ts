import { WRITING_STOCK, writtenTexts, type FormatText } from '@zesting/core';
import type { ContentTextBody } from '@zesting/contract';

/** What the story's formats are written by: what the starting stock gives, taken as it is. */
export const writingOf = (format: string): (typeof WRITING_STOCK)[string] => WRITING_STOCK[format] ?? { texts: [], outline: [] };

/** What stands in a text, out of what the story tells of a piece. */
const WORDS: Readonly<Record<string, (title: string, copy: string) => string>> = {
  subject: (title) => capital(title.replace(/^Newsletter: /, '')),
  preview: (_, copy) => firstSentence(copy),
  title: (title) => title,
  summary: (_, copy) => firstSentence(copy),
  hook: (_, copy) => firstSentence(copy),
  script: (title, copy) => `Close on the hands. No words yet.\n“${copy}”\nLast shot: ${title.toLowerCase()}, held for two seconds.`,
};

const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
const firstSentence = (copy: string): string => (copy.split(/(?<=[.?])\s/)[0] ?? '').replace(/\.$/, '');

/** The texts of a piece besides its copy, as far as the story has words for them. */
export function textsOf(asked: readonly FormatText[], title: string, copy: string): ContentTextBody[] {
  return writtenTexts(asked).flatMap(({ key, limit }) => {
    const text = WORDS[key]?.(title, copy) ?? '';
    return text === '' || (limit !== null && text.length > limit) ? [] : [{ key, text }];
  });
}
