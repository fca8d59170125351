/** What is kept to be written again: a first line, a last one, what people are asked to do, a text to start from. */
export const PHRASE_KINDS = ['opening', 'closing', 'call_to_action', 'template'] as const;
export type PhraseKind = (typeof PHRASE_KINDS)[number];

export interface Phrase {
  readonly kind: PhraseKind;
  readonly text: string;
}

/** Between what was there and what is put beside it. */
const GAP = '\n\n';

/**
 * A copy with a phrase where its kind stands: an opening before all, a closing or a call to action behind all, a template in place of nothing or behind
 * what is there. One that stands there already is not put in twice.
 */
export function withPhrase(copy: string, { kind, text }: Phrase): string {
  const [there, put] = [copy.trim(), text.trim()];
  if (there === '' || put === '') return there === '' ? put : copy;
  if (kind === 'opening') return there.startsWith(put) ? copy : `${put}${GAP}${copy.trimStart()}`;
  return there.endsWith(put) ? copy : `${copy.trimEnd()}${GAP}${put}`;
}
