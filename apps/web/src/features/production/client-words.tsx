import { wordsOtherwise, wordsStanding, type ClientRules } from '@zesting/core';

const quoted = (words: readonly string[]): string => words.map((word) => `“${word}”`).join(', ');

/** What is said of a text that holds words which the client never uses, or writes otherwise; undefined where there is nothing to say. */
export function wordsWarning(text: string, { wordsNever, wordsToUse }: Pick<ClientRules, 'wordsNever' | 'wordsToUse'>): string | undefined {
  const never = wordsStanding(text, wordsNever);
  const otherwise = wordsOtherwise(text, wordsToUse);
  const said = [
    never.length === 0 ? '' : `Never used for this client: ${quoted(never)}`,
    otherwise.length === 0 ? '' : `The client writes it ${quoted(otherwise)}`,
  ].filter((words) => words !== '');
  return said.length === 0 ? undefined : said.join('. ');
}

/** The client's own words beside a text, those that stand in it marked. */
export function WordsToUse({ text, words }: { readonly text: string; readonly words: readonly string[] }) {
  if (words.length === 0) return null;
  const standing = wordsStanding(text, words);
  return (
    <p className="text-[13px] text-muted -mt-1 mb-3">
      The client’s own words:{' '}
      {words.map((word, index) => (
        <span key={word}>
          {index > 0 && ' · '}
          <span className={standing.includes(word) ? 'text-pine font-medium' : ''}>
            {word}
            {standing.includes(word) && <span className="sr-only"> (used)</span>}
          </span>
        </span>
      ))}
    </p>
  );
}
