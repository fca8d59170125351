import type { FollowUpShape, FollowUpsShape } from '@zesting/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { ClientCode, Tag } from '../../ui/tags';

/** What is done by hand after something went out: due by each client's own today, and over the next seven days; what was settled today below it. */
export function FollowUps({ followUps }: { followUps: FollowUpsShape }) {
  const todayOf = (clientId: string) => followUps.todays.find((one) => one.clientId === clientId)?.todayOn ?? '';
  return (
    <>
      {followUps.open.map((row) => (
        <Row key={row.id} row={row} todayOn={todayOf(row.clientId)} />
      ))}
      {followUps.hidden > 0 && <li className="text-muted px-4 py-2">{followUps.hidden} more: choose a client above to see them.</li>}
      {followUps.settled.length > 0 && (
        <li className="border-t border-line first:border-t-0">
          <details>
            <summary className="px-4 py-2 min-h-8 text-pine font-medium">
              {count(followUps.settled.length, 'settled', 'settled')} today
            </summary>
            <ul>
              {followUps.settled.map((row) => (
                <Row key={row.id} row={row} todayOn={todayOf(row.clientId)} />
              ))}
            </ul>
          </details>
        </li>
      )}
    </>
  );
}

/** Something to be done, with where and when. */
function Row({ row, todayOn }: { row: FollowUpShape; todayOn: string }) {
  const { clientOf, to } = useClients();
  const client = clientOf(row.clientId);
  const settle = useWrite((state: FollowUpShape['state']) => call(`/follow-ups/${row.id}`, { method: 'PUT', body: { state } }));
  const [wanted, setWanted] = useState<FollowUpShape['state'] | null>(null); // as it was clicked, until the answer is there
  const state = wanted ?? row.state;
  const what = `${row.words}: ${row.pieceTitle}`;
  const put = (next: FollowUpShape['state']) => {
    setWanted(next);
    settle.mutate(next, { onError: () => setWanted(null) });
  };
  const isLate = row.dueOn < todayOn;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 items-start px-4 py-2 border-t border-line first:border-t-0">
      <div className="min-w-0">
        <label className="flex items-start gap-2 min-h-7">
          <input
            type="checkbox"
            className="size-4 accent-pine mt-1 shrink-0"
            aria-label={what}
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
        </p>
      </div>
      <p className="flex flex-wrap items-center justify-end gap-x-2 text-[13px]">
        {row.state === 'open' ? (
          <>
            {isLate ? (
              <Tag tone="rhubarb">since {dayWords(row.dueOn)}</Tag>
            ) : row.dueOn === todayOn ? (
              <Tag tone="rind">today</Tag>
            ) : (
              <span className="text-muted tabular">{dayWords(row.dueOn)}</span>
            )}
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
