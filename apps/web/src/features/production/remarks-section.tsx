import type { PieceShape, RemarkShape, SettleRemarkBody } from '@zesting/contract';
import { useState } from 'react';
import { call, wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { useKept } from '../../lib/kept';
import { useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { Tag } from '../../ui/tags';

/** What the client asked to have changed, as a to-do: each is settled or answered before the piece goes to the client again. */
export function RemarksSection({ piece }: { piece: PieceShape }) {
  if (piece.remarks.length === 0) return null;
  const open = piece.remarks.filter((remark) => remark.state === 'open');
  const rounds = [...new Set(piece.remarks.map((remark) => remark.round))];
  return (
    <section id="remarks" aria-label="Remarks" className={`card p-4 scroll-mt-4 ${open.length > 0 ? 'border-rind' : ''}`}>
      <h2 className="text-lg flex items-center gap-2 mb-1">
        Remarks
        {open.length > 0 ? <Tag tone="rind">{open.length} to settle or answer</Tag> : <Tag tone="pine">All settled or answered</Tag>}
      </h2>
      {rounds.map((round) => {
        const remarks = piece.remarks.filter((remark) => remark.round === round);
        const isOver = remarks.every((remark) => remark.state !== 'open') && round < piece.round - 1;
        return (
          <details key={round} open={!isOver}>
            <summary className="text-muted text-[13px] min-h-6">
              Round {round}: {count(remarks.length, 'remark')}
            </summary>
            <ul>
              {remarks.map((remark) => (
                <RemarkLine key={remark.id} remark={remark} canWrite={piece.canWrite} />
              ))}
            </ul>
          </details>
        );
      })}
    </section>
  );
}

function RemarkLine({ remark, canWrite }: { remark: RemarkShape; canWrite: boolean }) {
  const [answer, setAnswer] = useKept<string>(`remark:${remark.id}`);
  const answering = answer !== null;
  const [error, setError] = useState<string>();
  const settle = useWrite((body: SettleRemarkBody) => call(`/remarks/${remark.id}`, { method: 'PATCH', body }), { quiet: true });
  const put = (body: SettleRemarkBody) =>
    settle.mutate(body, {
      onSuccess: () => {
        setAnswer(null);
        setError(undefined);
      },
      onError: (problem) => setError(wordsOf(problem)),
    });
  const isOpen = remark.state === 'open';
  return (
    <li className="py-2 border-t border-line first:border-t-0">
      <div className="flex flex-wrap items-start gap-x-3 gap-y-1">
        <label className="flex items-start gap-2 flex-1 min-w-52">
          <input
            type="checkbox"
            className="size-4 accent-pine mt-1"
            disabled={!canWrite || settle.isPending}
            checked={!isOpen}
            onChange={(event) => put({ state: event.target.checked ? 'settled' : 'open' })}
          />
          <span className={`break-words ${isOpen ? 'font-medium' : 'text-muted'}`}>
            {remark.text}
            <span className="block text-muted font-normal text-[13px]">
              {remark.contactName}
              {remark.state === 'settled' && `, settled by ${remark.settledBy ?? ''}`}
              {remark.state === 'answered' && `, answered by ${remark.settledBy ?? ''}: ${remark.answer}`}
            </span>
          </span>
        </label>
        {isOpen && canWrite && !answering && (
          <Button look="quiet" onClick={() => setAnswer('')}>
            Answer instead…
          </Button>
        )}
      </div>
      {error && !answering && (
        <p role="alert" className="text-rhubarb text-[13px]">
          {error}
        </p>
      )}
      {answering && (
        <div className="pl-6 mt-1">
          <Field label="What is said instead of changing it" error={error} help="The client reads it with the next version.">
            {(control) => (
              <textarea {...control} className="field" rows={2} value={answer} onChange={(event) => setAnswer(event.target.value)} />
            )}
          </Field>
          <div className="flex gap-2">
            <Button look="main" disabled={settle.isPending} onClick={() => put({ state: 'answered', answer })}>
              Answer
            </Button>
            <Button onClick={() => setAnswer(null)}>Not yet</Button>
          </div>
        </div>
      )}
    </li>
  );
}
