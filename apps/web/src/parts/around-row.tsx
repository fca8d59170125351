import type { FollowUpShape } from '@zesting/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../lib/api';
import { dayWords, minutesWords } from '../lib/format';
import { useClients, useWrite } from '../lib/queries';
import { Button } from '../ui/button';
import { ClientCode, Tag } from '../ui/tags';

/** What stays with a row whatever is said of it. */
export const aroundKey = ({ id, placementId, itemKey }: FollowUpShape): string => id ?? `${placementId} ${itemKey}`;

interface AroundRowProps {
  readonly row: FollowUpShape;
  /** the client's today */
  readonly todayOn: string;
  /** whether whose it is need not be said */
  readonly isOwn?: boolean;
}

/** Something to be done around what goes out, with where and when, and whose it is. What is not signed is put nowhere. */
export function AroundRow({ row, todayOn, isOwn = false }: AroundRowProps) {
  const { clientOf, to } = useClients();
  const client = clientOf(row.clientId);
  const { id, placementId, itemKey, meantAt } = row;
  const settle = useWrite((state: FollowUpShape['state']) =>
    id === null
      ? call(`/placements/${placementId}/entering`, { method: 'PUT', body: { itemKey, meantAt, state } })
      : call(`/follow-ups/${id}`, { method: 'PUT', body: { state } }),
  );
  const [wanted, setWanted] = useState<FollowUpShape['state'] | null>(null); // as it was clicked, until the answer is there
  const state = wanted ?? row.state;
  const what = `${row.words}: ${row.pieceTitle}`;
  const put = (next: FollowUpShape['state']) => {
    setWanted(next);
    settle.mutate(next, { onError: () => setWanted(null) });
  };
  const whose = isOwn ? null : row.personName;
  const mustWait = row.state === 'open' && !row.isSigned;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 items-start px-4 py-2 border-t border-line first:border-t-0">
      <div className="min-w-0">
        <label className="flex items-start gap-2 min-h-7">
          <input
            type="checkbox"
            className="size-4 accent-pine mt-1 shrink-0"
            aria-label={what}
            disabled={mustWait}
            checked={state === 'done'}
            onChange={(event) => put(event.target.checked ? 'done' : 'open')}
          />
          <span className={`min-w-0 break-words font-medium ${state === 'open' ? '' : 'text-muted line-through'}`}>{row.words}</span>
        </label>
        <p className="text-[13px] text-muted pl-6 break-words">
          <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />{' '}
          <Link to={to(`/pieces/${row.pieceId}`)} className="text-ink underline">
            {row.pieceTitle}
          </Link>{' '}
          on {row.channelName}
          {row.address && (
            <>
              {', '}
              <a href={row.address} target="_blank" rel="noreferrer" className="text-pine underline">
                see it there
              </a>
            </>
          )}
          {[whose, row.minutes > 0 && minutesWords(row.minutes)].filter(Boolean).map((words) => ` · ${String(words)}`)}
        </p>
      </div>
      <p className="flex flex-wrap items-center justify-end gap-x-2 text-[13px]">
        {row.state === 'open' ? (
          <>
            {mustWait && <Tag tone="calm">not signed yet</Tag>}
            <Due row={row} todayOn={todayOn} />
            <Button look="quiet" disabled={settle.isPending} onClick={() => put('left_out')} aria-label={`Leave out: ${what}`}>
              Leave out
            </Button>
          </>
        ) : (
          <>
            <span className="text-muted">
              {row.state === 'done' ? 'done' : 'left out'} by {row.settledBy}
            </span>
            <Button look="quiet" disabled={settle.isPending} onClick={() => put('open')} aria-label={`Take back: ${what}`}>
              Take back
            </Button>
          </>
        )}
      </p>
    </li>
  );
}

function Due({ row: { dueOn }, todayOn }: Pick<AroundRowProps, 'row' | 'todayOn'>) {
  if (dueOn < todayOn) return <Tag tone="rhubarb">since {dayWords(dueOn)}</Tag>;
  if (dueOn === todayOn) return <Tag tone="rind">today</Tag>;
  return <span className="text-muted tabular">{dayWords(dueOn)}</span>;
}
