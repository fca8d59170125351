import { useSuspenseQuery } from '@tanstack/react-query';
import type { MyDutyShape } from '@zesting/contract';
import { toast } from 'sonner';
import { myDutiesQuery } from '../api/duties';
import { call } from '../lib/api';
import { count, dayWords, minutesWords } from '../lib/format';
import { useClients, useWrite } from '../lib/queries';
import { useHeld } from '../lib/use-held';
import { Button } from '../ui/button';
import { ClientCode, Tag } from '../ui/tags';

/** What the viewer has to do that is no step of a piece: today's, what can be begun, and what was missed last. Nothing where there is none. */
export function OwnDuties() {
  const { data } = useSuspenseQuery(myDutiesQuery);
  const { client } = useClients();
  const rows = data.rows.filter(({ clientId }) => !client || clientId === client.id);
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="own-duties" className="card overflow-hidden mb-4">
      <h2 id="own-duties" className="flex items-center gap-2 px-4 pt-2.5 pb-1 text-[13px] font-sans tracking-normal">
        <Tag tone="pine">Your duties</Tag>
        <span className="text-muted font-normal tabular">{rows.length}</span>
      </h2>
      <ul>
        {rows.map((row) => (
          <OwnDuty key={`${row.dutyId} ${row.day.on}`} row={row} todayOn={data.todayOn} />
        ))}
      </ul>
    </section>
  );
}

function OwnDuty({ row, todayOn }: { row: MyDutyShape; todayOn: string }) {
  const { dutyId, day, title, checklist, remark } = row;
  const mark = useWrite(({ as, ticks }: { as: 'done' | 'left_out' | 'open'; ticks: readonly number[] }) =>
    call(`/duties/${dutyId}/day`, { method: 'PUT', body: { on: day.on, mark: as, ticks } }),
  );
  const [ticks, hold] = useHeld<readonly number[]>(day.ticks);
  const say = (as: 'done' | 'left_out') =>
    mark.mutate(
      { as, ticks },
      {
        onSuccess: () =>
          toast(`${title}: ${as === 'done' ? 'done' : 'left out'}`, {
            action: { label: 'Take back', onClick: () => mark.mutate({ as: 'open', ticks }) },
          }),
      },
    );
  const isMissed = day.state === 'missed';
  return (
    <li className="px-4 py-1.5 border-t border-line first:border-t-0 flex flex-wrap items-center gap-x-3 gap-y-1 hover:bg-sunk">
      <div className="flex-1 min-w-0 basis-60">
        <p className="flex flex-wrap items-center gap-x-2">
          {row.clientCode !== null && <ClientCode code={row.clientCode} colour={row.clientColour ?? 0} name={row.clientName ?? ''} />}
          <span className="font-medium break-words">{title}</span>
          <span className="text-muted text-[13px] tabular">
            {isMissed ? `was due ${dayWords(day.dueOn)}` : day.dueOn === todayOn ? 'today' : `by ${dayWords(day.dueOn)}`}
            {row.minutes > 0 && ` · ${minutesWords(row.minutes)}`}
          </span>
          {isMissed && <Tag tone="rhubarb">missed</Tag>}
          {row.missedBefore > 0 && (
            <span className="text-rhubarb text-[13px] font-medium">{count(row.missedBefore, 'earlier one')} missed</span>
          )}
        </p>
        {remark && <p className="text-muted text-[13px] break-words">{remark}</p>}
        {checklist.length > 0 && (
          <div className="flex flex-wrap gap-x-4">
            {checklist.map((line, position) => (
              <label key={position} className="inline-flex items-center gap-1.5 min-h-6 text-[13px]">
                <input
                  type="checkbox"
                  className="size-4 accent-pine"
                  checked={ticks.includes(position)}
                  onChange={(event) => {
                    const next = event.target.checked ? [...ticks, position] : ticks.filter((other) => other !== position);
                    hold(next);
                    mark.mutate({ as: 'open', ticks: next }, { onError: () => hold(undefined) });
                  }}
                />
                {line}
              </label>
            ))}
          </div>
        )}
      </div>
      <div className="flex gap-2 ml-auto">
        <Button
          look="quiet"
          aria-label={`Leave out ${title}, ${dayWords(day.dueOn)}`}
          disabled={mark.isPending}
          onClick={() => say('left_out')}
        >
          Leave out
        </Button>
        <Button aria-label={`Done: ${title}, ${dayWords(day.dueOn)}`} disabled={mark.isPending} onClick={() => say('done')}>
          Done
        </Button>
      </div>
    </li>
  );
}
