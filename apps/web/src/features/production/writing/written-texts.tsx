import type { MediumShape, WrittenTextShape } from '@zesting/contract';
import { countCharacters, type ClientRules } from '@zesting/core';
import { Field } from '../../../ui/field';
import { SlidesField } from './slides-field';
import { Wordings } from './wordings';
import { wordsWarning } from '../client-words';

interface WrittenTextsProps {
  readonly texts: readonly WrittenTextShape[];
  readonly rules: Pick<ClientRules, 'wordsNever' | 'wordsToUse'>;
  readonly readOnly: boolean;
  /** the piece's pictures and clips, which stand with slides */
  readonly media: readonly MediumShape[];
  /** @param media where they moved with slides, or went with one */
  readonly onChange: (texts: WrittenTextShape[], media?: MediumShape[]) => void;
}

/** What a piece of its format has besides the copy: a subject line, a title, a script; each with what helps to write it, and its length. */
export function WrittenTexts({ texts, rules, readOnly, media, onChange }: WrittenTextsProps) {
  const put = (key: string, text: string, moved?: MediumShape[]) =>
    onChange(
      texts.map((one) => (one.key === key ? { ...one, text } : one)),
      moved,
    );
  const putOthers = (key: string, part: Pick<WrittenTextShape, 'others'> & { readonly text?: string }) =>
    onChange(texts.map((one) => (one.key === key ? { ...one, ...part } : one)));
  return texts
    .filter(({ isAsked, text, others }) => isAsked || text !== '' || others.length > 0)
    .map(({ key, name, text, isLong, isSlides, prompt, limit, isNeeded, isAsked, others }) => {
      const length = countCharacters(text.trim());
      const help = [isAsked ? prompt : 'Pieces of this format have it no longer. Empty it to take it out.', limitWords(length, limit)];
      const isTooLong = limit !== null && length > limit;
      if (isSlides)
        return (
          <SlidesField
            key={key}
            name={name}
            help={[...help, isTooLong ? `${length - limit} characters too many` : '', wordsWarning(text, rules) ?? '']
              .filter(Boolean)
              .join(' · ')}
            text={text}
            media={media}
            readOnly={readOnly}
            onChange={(next, moved) => put(key, next, moved)}
          />
        );
      return (
        <div key={key}>
          <Field
            label={name}
            required={isNeeded}
            help={help.filter(Boolean).join(' · ') || undefined}
            error={isTooLong ? `${length - limit} characters too many` : undefined}
            warning={wordsWarning(text, rules)}
          >
            {(control) =>
              isLong ? (
                <textarea
                  {...control}
                  className="field field-sizing-content"
                  rows={3}
                  spellCheck
                  readOnly={readOnly}
                  value={text}
                  onChange={({ target }) => put(key, target.value)}
                />
              ) : (
                <input
                  {...control}
                  className="field"
                  spellCheck
                  readOnly={readOnly}
                  value={text}
                  onChange={({ target }) => put(key, target.value)}
                />
              )
            }
          </Field>
          {(!readOnly || others.length > 0) && !isLong && (
            <Wordings name={name} text={text} others={others} readOnly={readOnly} onChange={(part) => putOthers(key, part)} />
          )}
        </div>
      );
    });
}

const limitWords = (length: number, limit: number | null): string => (limit === null ? '' : `${length} of ${limit} characters`);
