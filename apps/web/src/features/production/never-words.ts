import { wordsStanding } from '@zesting/core';

/** What is said of a text that holds words which the client never uses; undefined where it holds none. */
export function neverWords(text: string, wordsNever: readonly string[]): string | undefined {
  const standing = wordsStanding(text, wordsNever);
  return standing.length === 0 ? undefined : `Never used for this client: ${standing.map((word) => `“${word}”`).join(', ')}`;
}
