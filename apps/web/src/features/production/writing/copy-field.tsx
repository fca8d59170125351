import type { ContentShape } from '@zesting/contract';
import { asProse, copyWords, countCharacters, wordCount, type ClientRules } from '@zesting/core';
import { count } from '../../../lib/format';
import { Button } from '../../../ui/button';
import { Field } from '../../../ui/field';
import { Prose, ProseEditor } from '../../../ui/prose';
import { wordsWarning } from '../client-words';

/** The copy that channels share, and whether it is laid out. */
export type WrittenCopy = Pick<ContentShape['shared'], 'copy' | 'isLaidOut'>;

interface CopyFieldProps {
  readonly shared: WrittenCopy;
  /** copy of the piece's format has headings, lists and links */
  readonly laysOut: boolean;
  /** BCP 47 */
  readonly language: string;
  readonly rules: Pick<ClientRules, 'wordsNever' | 'wordsToUse'>;
  readonly readOnly: boolean;
  readonly onChange: (copy: WrittenCopy) => void;
}

/** Where nothing is written yet the format decides how it will be. */
export const isLaidOutNow = ({ copy, isLaidOut }: WrittenCopy, laysOut: boolean): boolean => isLaidOut || (laysOut && copy.trim() === '');

/** The copy that goes out on every channel without one of its own: words alone, or with headings, lists, links and emphasis where the format has them. */
export function CopyField({ shared, laysOut, language, rules, readOnly, onChange }: CopyFieldProps) {
  const words = copyWords(shared);
  const isLaidOut = isLaidOutNow(shared, laysOut);
  const length = `${count(wordCount(words, language), 'word')}, ${count(countCharacters(words.trim()), 'character')}`;
  return (
    <>
      <Field label="Copy" help={`Goes out on every channel that has no copy of its own. ${length}.`} warning={wordsWarning(words, rules)}>
        {(control) =>
          !isLaidOut ? (
            <textarea
              {...control}
              className="field"
              rows={5}
              lang={language}
              spellCheck
              readOnly={readOnly}
              value={shared.copy}
              onChange={({ target }) => onChange({ copy: target.value, isLaidOut: false })}
            />
          ) : readOnly ? (
            <div id={control.id} role="region" aria-label="Copy" tabIndex={0} className="field max-h-[36rem] overflow-auto">
              <Prose source={shared.copy} />
            </div>
          ) : (
            <ProseEditor
              label="Copy"
              describedBy={control['aria-describedby']}
              source={shared.copy}
              onChange={(copy) => onChange({ copy, isLaidOut: true })}
              language={language}
              ownWords={rules.wordsToUse}
            />
          )
        }
      </Field>
      {!readOnly && shared.copy.trim() !== '' && <Turn shared={shared} laysOut={laysOut} words={words} onChange={onChange} />}
    </>
  );
}

/** From words alone to a layout and back: the words stay. */
function Turn({ shared, laysOut, words, onChange }: Pick<CopyFieldProps, 'shared' | 'laysOut' | 'onChange'> & { words: string }) {
  if (!shared.isLaidOut && !laysOut) return null;
  return (
    <p className="-mt-2 mb-3">
      <Button
        look="quiet"
        className="text-[13px] -ml-3"
        onClick={() => onChange(shared.isLaidOut ? { copy: words, isLaidOut: false } : { copy: asProse(shared.copy), isLaidOut: true })}
      >
        {shared.isLaidOut ? 'Write it as words alone' : 'Write it with headings and lists'}
      </Button>
    </p>
  );
}
