import type { ClientShape, CopiedLineShape } from '@zesting/contract';
import { nextMonth } from '@zesting/core';
import { useQuery } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { toast } from 'sonner';
import { copyMonth, copyPreviewQuery } from '../../api/plan';
import { wordsOf } from '../../lib/api';
import { count, dayWords, monthWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { FieldGroup } from '../../ui/field-group';
import { FormDialog } from '../../ui/form-dialog';

/** So many months can be chosen. */
const AHEAD = 6;

const OUTCOMES: Record<CopiedLineShape['outcome'], string> = {
  copied: '',
  no_such_day: 'that month has no such weekday',
  taken: 'something stands there already',
  closed: 'the day is closed',
  past: 'is past',
  no_route: 'no route makes it',
  failed: 'could not be copied',
};

interface CopyDialogProps {
  readonly client: ClientShape;
  readonly month: string;
  readonly onClose: () => void;
}

/** Copies what stands in a month into others, on the same weekdays; what it comes to is shown before it is done. */
export function CopyDialog({ client, month, onClose }: CopyDialogProps) {
  const [to, setTo] = useState([nextMonth(month, 1)]);
  const preview = useQuery(copyPreviewQuery(client.id, month, to));
  const copy = useWrite(() => copyMonth(client.id, { from: month, to, isPreview: false }), { quiet: true });
  const lines = to.length > 0 ? (preview.data?.lines ?? []) : [];
  const copied = lines.filter(({ outcome }) => outcome === 'copied').length;
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    copy.mutate(undefined, {
      onSuccess: ({ lines: done }) => {
        const made = done.filter(({ outcome }) => outcome === 'copied').length;
        toast(`${count(made, 'piece')} planned`);
        if (made < copied) toast.error(`${count(copied - made, 'piece')} could not be copied any more: look at the months.`);
        onClose();
      },
    });
  };
  return (
    <FormDialog
      form={{
        onSubmit,
        wrong: preview.isError ? wordsOf(preview.error) : copy.isError ? wordsOf(copy.error) : undefined,
        busy: copy.isPending || copied === 0 || preview.isFetching,
      }}
      onClose={onClose}
      title={`Copy ${monthWords(month)}`}
      description="Each piece becomes a planned one of its format, pillar and channels, still to be thought of: the third Tuesday’s on the third Tuesday."
      action={copied > 0 ? `Plan ${count(copied, 'piece')}` : 'Plan them'}
    >
      <FieldGroup label="Into">
        {() => (
          <div className="grid grid-cols-2 sm:grid-cols-3">
            {Array.from({ length: AHEAD }, (_, index) => nextMonth(month, index + 1)).map((other) => (
              <label key={other} className="inline-flex items-center gap-2 min-h-8">
                <input
                  type="checkbox"
                  className="size-4 accent-pine"
                  checked={to.includes(other)}
                  onChange={(event) => setTo(event.target.checked ? [...to, other] : to.filter((one) => one !== other))}
                />
                {monthWords(other)}
              </label>
            ))}
          </div>
        )}
      </FieldGroup>
      <Lines client={client} lines={lines} isEmpty={preview.isSuccess && to.length > 0 && lines.length === 0} />
    </FormDialog>
  );
}

function Lines({ client, lines, isEmpty }: { client: ClientShape; lines: readonly CopiedLineShape[]; isEmpty: boolean }) {
  const channels = new Map(client.channels.map(({ id, name }) => [id, name]));
  const pillars = new Map(client.pillars.map(({ id, name }) => [id, name]));
  if (isEmpty) return <p className="text-muted mb-3">Nothing stands in that month.</p>;
  if (lines.length === 0) return null;
  return (
    <ul className="max-h-64 overflow-y-auto mb-3 text-[13px]" tabIndex={0} aria-label="What it comes to">
      {lines.map((line, index) => (
        <li key={index} className="border-t border-line first:border-t-0 py-1 flex flex-wrap items-center gap-x-3">
          <span className={`tabular w-28 ${line.outcome === 'copied' ? '' : 'text-muted'}`}>
            {dayWords(line.on ?? line.fromOn)}
            {line.on === null && '?'}
          </span>
          <span className={`flex-1 min-w-32 truncate ${line.outcome === 'copied' ? '' : 'text-muted'}`}>
            {[line.formatName, pillars.get(line.pillarId ?? ''), line.channelIds.map((id) => channels.get(id)).join(', ')]
              .filter(Boolean)
              .join(' · ')}
          </span>
          {line.outcome !== 'copied' && <span className="text-rind font-medium">{OUTCOMES[line.outcome]}</span>}
        </li>
      ))}
    </ul>
  );
}
