import type { UploadShape } from '@zesting/contract';
import { fieldsOf, isAgencyOnly, type Answer, type FormField, type FormItem } from '@zesting/core';
import { FileText } from 'lucide-react';
import { dayWords } from '../lib/format';
import { Picture } from './picture';

interface AnswersProps {
  readonly items: readonly FormItem[];
  readonly answers: Readonly<Record<string, Answer>>;
  readonly files: readonly UploadShape[];
}

/** What was asked and what was answered, files with small pictures. Questions left empty are named together at the end. */
export function Answers({ items, answers, files }: AnswersProps) {
  const fields = fieldsOf(items);
  const isAnswered = (field: FormField) => (answers[field.key] ?? '').length > 0;
  const empty = fields.filter((field) => !isAnswered(field));
  return (
    <dl className="grid gap-3">
      {fields.filter(isAnswered).map((field) => (
        <div key={field.key}>
          <dt className="text-muted text-[13px]">
            {field.label}
            {isAgencyOnly(field) && ' (hidden from freelancers)'}
          </dt>
          <dd className="break-words whitespace-pre-wrap max-w-[70ch]">
            <AnswerText field={field} answer={answers[field.key] ?? ''} files={files} />
          </dd>
        </div>
      ))}
      {empty.length > 0 && (
        <div>
          <dt className="text-muted text-[13px]">Left empty</dt>
          <dd className="text-muted">{empty.map((field) => field.label).join(' · ')}</dd>
        </div>
      )}
    </dl>
  );
}

function AnswerText({ field, answer, files }: { field: FormField; answer: Answer; files: readonly UploadShape[] }) {
  const labelOf = (value: string) => field.options?.find((option) => option.value === value)?.label ?? value;
  if (field.kind === 'files')
    return <FileList files={[answer].flat().flatMap((id) => files.find(({ assetId }) => assetId === id) ?? [])} />;
  if (typeof answer !== 'string')
    return field.kind === 'span' ? answer.map((on) => dayWords(on)).join(' to ') : answer.map(labelOf).join(', ');
  switch (field.kind) {
    case 'day':
      return dayWords(answer);
    case 'yes_no':
      return answer === 'yes' ? 'Yes' : 'No';
    case 'number':
    case 'money':
      return [answer, field.unit].filter(Boolean).join(' ');
    case 'link':
      return (
        <a href={answer} rel="noreferrer noopener" target="_blank" className="text-pine underline break-all">
          {answer}
        </a>
      );
    default:
      return labelOf(answer);
  }
}

/** Files as small pictures or names; each opens in full. */
export function FileList({ files }: { files: readonly UploadShape[] }) {
  return (
    <ul className="flex flex-wrap gap-2 mt-1">
      {files.map((file) => (
        <li key={file.assetId}>
          <a
            href={`/api/files/${file.assetId}`}
            target="_blank"
            rel="noreferrer"
            className="block no-underline hover:underline"
            title={file.name}
          >
            {file.mime.startsWith('image/') ? (
              <Picture
                src={`/api/files/${file.assetId}?width=160`}
                alt={file.name}
                className="h-24 w-24 object-cover rounded-md border border-line"
                loading="lazy"
              />
            ) : (
              <span className="card flex items-center gap-2 px-3 min-h-8">
                <FileText size={16} aria-hidden /> {file.name}
              </span>
            )}
          </a>
        </li>
      ))}
    </ul>
  );
}
