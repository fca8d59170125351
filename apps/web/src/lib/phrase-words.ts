import { charactersOf, type PhraseKind } from '@zesting/core';

/** What each kind is called. */
export const KIND_WORDS: Record<PhraseKind, { readonly one: string; readonly many: string }> = {
  opening: { one: 'Opening', many: 'Openings' },
  closing: { one: 'Closing', many: 'Closings' },
  call_to_action: { one: 'Call to action', many: 'Calls to action' },
  template: { one: 'Text to start from', many: 'Texts to start from' },
};

/** So many characters of a phrase are shown in a line. */
const SHOWN = 80;

/** A phrase in one line. */
export function shortPhrase(text: string): string {
  const line = charactersOf(text.trim().replace(/\s+/g, ' '));
  return line.length > SHOWN ? `${line.slice(0, SHOWN).join('').trimEnd()}…` : line.join('');
}
