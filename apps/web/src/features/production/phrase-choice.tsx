import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { PhraseShape } from '@zesting/contract';
import { asProse, PHRASE_KINDS, withPhrase } from '@zesting/core';
import { libraryKeys, phrasesForQuery } from '../../api/library';
import { call } from '../../lib/api';
import { KIND_WORDS, shortPhrase } from '../../lib/phrase-words';

interface PhraseChoiceProps {
  readonly pieceId: string;
  readonly copy: string;
  /** the copy has headings and lists: a phrase stands in it as its words */
  readonly isLaidOut?: boolean;
  /** the copy with the phrase where its kind stands */
  readonly onChoose: (copy: string) => void;
}

/** Puts a kept phrase into a copy where its kind stands; those for the piece’s pillar come first. Nothing where the client has none. */
export function PhraseChoice({ pieceId, copy, isLaidOut = false, onChoose }: PhraseChoiceProps) {
  const { data } = useQuery(phrasesForQuery(pieceId));
  const queries = useQueryClient();
  const phrases = data?.phrases ?? [];
  if (phrases.length === 0) return null;
  const use = (phrase: PhraseShape) => {
    onChoose(withPhrase(copy, isLaidOut ? { ...phrase, text: asProse(phrase.text) } : phrase));
    // the count is a help for the next one who looks: it holds nobody up
    call(`/pieces/${pieceId}/phrases`, { method: 'POST', body: { phraseId: phrase.id } })
      .then(() => queries.invalidateQueries({ queryKey: libraryKeys.phrasesFor(pieceId) }))
      .catch(() => undefined);
  };
  return (
    <select
      aria-label="Put in a phrase"
      className="field text-[13px] -mt-2 mb-3.5"
      value=""
      onChange={({ target }) => {
        const phrase = phrases.find(({ id }) => id === target.value);
        if (phrase) use(phrase);
      }}
    >
      <option value="">Put in a phrase…</option>
      {PHRASE_KINDS.map((kind) => {
        const ofKind = phrases.filter((phrase) => phrase.kind === kind);
        return (
          ofKind.length > 0 && (
            <optgroup key={kind} label={KIND_WORDS[kind].many}>
              {ofKind.map((phrase) => (
                <option key={phrase.id} value={phrase.id}>
                  {shortPhrase(phrase.text)}
                </option>
              ))}
            </optgroup>
          )
        );
      })}
    </select>
  );
}
