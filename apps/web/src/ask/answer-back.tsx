import type { AnswerBackBody, ReceiptShape, UploadShape } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { FilesInput } from '../asked/files-input';
import { useLanguage } from '../language/language';
import { call, wordsOf } from '../lib/api';
import { Field } from '../ui/field';

interface AnswerProps {
  readonly linkId: string;
  /** whether a question is waiting; else something can be added */
  readonly isAsked: boolean;
  readonly onSent: (receipt: ReceiptShape) => void;
}

/** Answers a question, or adds something to a request, with files. */
export function AnswerBack({ linkId, isAsked, onSent }: AnswerProps) {
  const { t } = useLanguage();
  const [text, setText] = useState('');
  const [files, setFiles] = useState<Readonly<Record<string, UploadShape>>>({});
  const [ids, setIds] = useState<readonly string[]>([]);
  const [underWay, setUnderWay] = useState(0);
  const [error, setError] = useState<string>();
  const [failure, setFailure] = useState<string>();
  const [busy, setBusy] = useState(false);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    if (busy) return;
    if (text.trim() === '') return setError(t('This is needed.'));
    if (underWay > 0) return setFailure(t('A file is still on its way. Wait until it has arrived, or take it out.'));
    setBusy(true);
    setFailure(undefined);
    try {
      const body: AnswerBackBody = { text: text.trim(), assetIds: [...ids] };
      onSent(await call<ReceiptShape>(`/receipts/${linkId}/messages`, { method: 'POST', body }));
      setText('');
      setIds([]);
    } catch (problem) {
      setFailure(t(wordsOf(problem)));
    } finally {
      setBusy(false);
    }
  };
  const field = { key: 'files', kind: 'files', label: t('Files') } as const;
  return (
    <form noValidate className="mt-6" onSubmit={(event) => void send(event)}>
      <Field label={isAsked ? t('Your answer') : t('Add something')} required={isAsked} error={error}>
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={3}
            maxLength={4000}
            value={text}
            onChange={(event) => {
              setText(event.target.value);
              setError(undefined);
            }}
          />
        )}
      </Field>
      <Field label={field.label}>
        {(control) => (
          <FilesInput
            control={control}
            field={field}
            ids={ids}
            files={files}
            uploadTo={`/receipts/${linkId}/uploads`}
            onAnswer={(answer) => setIds([answer].flat())}
            onFile={(_, file) => {
              setFiles((before) => ({ ...before, [file.assetId]: file }));
              setIds((before) => [...before, file.assetId]);
            }}
            onUnderWay={(_, count) => setUnderWay(count)}
          />
        )}
      </Field>
      {failure && (
        <p role="alert" className="text-rhubarb font-medium mb-3">
          {failure}
        </p>
      )}
      <button type="submit" disabled={busy} className="min-h-11 px-6 rounded-md bg-pine text-on-pine font-semibold disabled:opacity-60">
        {busy ? t('Sending…') : t('Send')}
      </button>
    </form>
  );
}
