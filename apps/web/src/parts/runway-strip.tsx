import { useQuery } from '@tanstack/react-query';
import type { RunwayRowShape } from '@zesting/contract';
import { addDays, weekdayOf, type Day, type RunwayCell } from '@zesting/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { runwayQuery } from '../api/plan';
import { count, dayWords } from '../lib/format';
import { useClients } from '../lib/queries';
import { Button } from '../ui/button';
import { ClientCode } from '../ui/tags';

const CELL_WORDS: Record<RunwayCell, string> = {
  hole: 'open',
  pencilled: 'pencilled',
  scheduled: 'scheduled',
  closed: 'closed',
  none: 'no slot',
};

/** A runway in words: "12 days", "42 days or more", "no rhythm". */
export const runwayWords = ({ days, hasRhythm, cells }: Pick<RunwayRowShape, 'days' | 'hasRhythm' | 'cells'>): string =>
  !hasRhythm ? 'no rhythm' : days === null ? `≥ ${cells.length} days` : count(days, 'day');

/** So many days and fewer are worth a second look. */
const SHORT_DAYS = 7;

/** So many clients are shown at first, those that are provided for least. */
const SHOWN = 12;

/** How long what is signed and dated lasts at each client: a row per client, a column per day for six weeks, each showing its worst slot. */
export function RunwayStrip({ className = '' }: { className?: string }) {
  const { query, to, clientOf } = useClients();
  const { data } = useQuery(runwayQuery(query));
  const [isWhole, setWhole] = useState(false);
  if (!data || data.rows.length === 0) return null;
  const sorted = [...data.rows].sort((a, b) => (a.hasRhythm ? (a.days ?? 98) : 99) - (b.hasRhythm ? (b.days ?? 98) : 99));
  const rows = isWhole ? sorted : sorted.slice(0, SHOWN);
  return (
    <section aria-labelledby="runway" className={`card p-3 min-w-0 ${className}`}>
      <h2 id="runway" className="text-base">
        Runway
      </h2>
      <p className="text-muted text-[13px] mb-2">Days until the first slot in which nothing signed stands.</p>
      <ul className="grid grid-cols-[minmax(0,1fr)] gap-0.5">
        {rows.map((row) => {
          const client = clientOf(row.clientId);
          const words = runwayWords(row);
          const isShort = row.hasRhythm && row.days !== null && row.days <= SHORT_DAYS;
          return (
            <li key={row.clientId}>
              <Link
                to={`${to('/plan').split('?')[0]}?client=${client?.code ?? ''}`}
                className="block px-2 -mx-2 py-1 no-underline rounded-md hover:bg-sunk"
              >
                <span className="flex items-baseline gap-2 text-[13px]">
                  <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} />
                  <span className="flex-1 truncate text-muted">{client?.name}</span>
                  <span
                    className={`tabular whitespace-nowrap ${isShort ? 'text-rhubarb font-semibold' : row.hasRhythm ? 'font-semibold' : 'text-muted'}`}
                  >
                    {words}
                  </span>
                </span>
                {row.hasRhythm && <Days row={row} />}
              </Link>
            </li>
          );
        })}
      </ul>
      {sorted.length > rows.length && (
        <Button look="quiet" className="-ml-3" onClick={() => setWhole(true)}>
          Show {sorted.length - rows.length} more
        </Button>
      )}
      <Key from={rows[0]?.todayOn ?? ''} days={data.horizonDays} />
    </section>
  );
}

/** The days of one client. In words: how many are open. */
function Days({ row }: { row: RunwayRowShape }) {
  const open = row.cells.filter((cell) => cell === 'hole').length;
  return (
    <span
      role="img"
      aria-label={row.hasRhythm ? `${count(open, 'day')} with open slots in six weeks` : 'No slots'}
      className="flex items-end h-4 min-w-0 mt-1 border-b border-line-strong"
    >
      {row.cells.map((cell, ahead) => {
        const on = addDays(row.todayOn as Day, ahead); // a day of the contract's
        return (
          <span
            key={on}
            title={`${dayWords(on)}: ${CELL_WORDS[cell]}`}
            className={`runway-cell runway-${cell} flex-1 ${ahead > 0 && weekdayOf(on) === 1 ? 'ml-[3px]' : ''}`}
          />
        );
      })}
    </span>
  );
}

function Key({ from, days }: { from: string; days: number }) {
  const shown: readonly RunwayCell[] = ['scheduled', 'pencilled', 'hole', 'closed'];
  return (
    <>
      <p className="flex justify-between text-[12px] text-muted tabular">
        <span>{dayWords(from)}</span>
        <span>{dayWords(addDays(from as Day, days - 1))}</span>
      </p>
      <ul className="flex flex-wrap gap-x-3 text-[12px] text-muted" aria-label="What the strip shows">
        {shown.map((cell) => (
          <li key={cell} className="inline-flex items-center gap-1.5">
            <span aria-hidden className="inline-flex items-end h-4">
              <span className={`runway-cell runway-${cell} w-2`} />
            </span>
            {CELL_WORDS[cell]}
          </li>
        ))}
      </ul>
    </>
  );
}
