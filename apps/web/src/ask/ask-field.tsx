import type { AskFormShape } from '@zesting/contract';
import type { Answer, FormField } from '@zesting/core';
import { useEffect, type Dispatch, type SetStateAction } from 'react';
import { dayWords } from '../lib/format';
import { useUploads } from '../lib/use-uploads';
import { DayInput } from '../ui/day-field';
import { Field } from '../ui/field';
import { UploadList } from '../ui/upload-list';
import type { AskDraft } from './draft';

interface AskFieldProps {
  readonly field: FormField;
  readonly form: AskFormShape;
  readonly draft: AskDraft;
  readonly error: string | undefined;
  readonly onAnswer: (key: string, value: Answer) => void;
  readonly onDraft: Dispatch<SetStateAction<AskDraft>>;
  /** says how many files of a field are on their way */
  readonly onUnderWay: (key: string, count: number) => void;
}

/** One question, in the control that fits its kind. */
export function AskField({ field, form, draft, error, onAnswer, onDraft, onUnderWay }: AskFieldProps) {
  const answer = draft.answers[field.key];
  const text = typeof answer === 'string' ? answer : '';
  const help = field.serves === 'wish_date' ? <WishHelp wish={text} earliest={form.earliestOn} help={field.help} /> : field.help;
  if (field.kind === 'files') return <FilesField {...{ field, form, draft, error, onAnswer, onDraft, onUnderWay }} />;
  return (
    <Field label={field.label} required={field.required ?? false} help={help} error={error}>
      {(control) => {
        const common = { ...control, className: 'field', value: text };
        const change = (event: { target: { value: string } }) => onAnswer(field.key, event.target.value);
        switch (field.kind) {
          case 'long':
            return <textarea {...common} rows={4} onChange={change} />;
          case 'choice':
            return (
              <select {...common} onChange={change}>
                <option value="">Choose…</option>
                {field.options?.map((option) => (
                  <option key={option}>{option}</option>
                ))}
              </select>
            );
          case 'date':
            return (
              <DayInput
                control={control}
                label={field.label}
                todayOn={form.todayOn}
                min={field.serves === 'wish_date' ? form.todayOn : undefined}
                marks={field.serves === 'wish_date' ? [{ on: form.earliestOn, words: 'Earliest realistic date' }] : []}
                value={text}
                onChange={(on) => onAnswer(field.key, on)}
              />
            );
          case 'link':
            return <input {...common} type="url" inputMode="url" placeholder="https://" onChange={change} />;
          default:
            return <input {...common} onChange={change} />;
        }
      }}
    </Field>
  );
}

/** Under the wish date: the earliest realistic one. */
function WishHelp({ wish, earliest, help }: { wish: string; earliest: string; help: string | undefined }) {
  const tooSoon = wish !== '' && wish < earliest;
  return (
    <>
      {help && <p>{help}</p>}
      <p className={tooSoon ? 'text-rind font-medium' : ''}>
        {tooSoon
          ? `That is sooner than we can usually do. The earliest realistic date is ${dayWords(earliest)}.`
          : `The earliest realistic date is ${dayWords(earliest)}.`}
      </p>
    </>
  );
}

function FilesField({ field, form, draft, error, onAnswer, onDraft, onUnderWay }: AskFieldProps) {
  const answer = draft.answers[field.key];
  const ids = Array.isArray(answer) ? (answer as readonly string[]) : []; // an answer is a text or a list of texts
  const uploads = useUploads(`/ask/${form.linkId}/uploads`, (stored) =>
    onDraft((before) => {
      const had = before.answers[field.key];
      return {
        ...before,
        files: { ...before.files, [stored.assetId]: stored },
        answers: { ...before.answers, [field.key]: [...(Array.isArray(had) ? (had as readonly string[]) : []), stored.assetId] },
      };
    }),
  );
  const underWay = uploads.list.filter((one) => one.state !== 'refused').length;
  useEffect(() => onUnderWay(field.key, underWay), [onUnderWay, field.key, underWay]);
  return (
    <Field label={field.label} required={field.required ?? false} help={field.help} error={error}>
      {(control) => (
        <>
          <input
            {...control}
            type="file"
            multiple
            className="field py-2 file:mr-3 file:rounded-md file:border-0 file:bg-sunk file:text-ink file:px-3 file:py-1"
            onChange={(event) => {
              uploads.add([...(event.target.files ?? [])]);
              event.target.value = '';
            }}
          />
          <UploadList uploads={uploads} />
          <ul>
            {ids.map((id) => (
              <li key={id} className="flex items-center gap-3 min-h-11 sm:min-h-8">
                <span className="truncate">{draft.files[id]?.name ?? 'A file'}</span>
                <button
                  type="button"
                  className="text-pine underline min-h-11 sm:min-h-6"
                  onClick={() =>
                    onAnswer(
                      field.key,
                      ids.filter((other) => other !== id),
                    )
                  }
                >
                  Take out<span className="sr-only"> {draft.files[id]?.name}</span>
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
    </Field>
  );
}
