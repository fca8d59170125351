import { useDndMonitor } from '@dnd-kit/core';
import { useQuery } from '@tanstack/react-query';
import type { CalendarEntryShape, CalendarShape } from '@zesting/contract';
import { lastOfMonth } from '@zesting/core';
import { useState } from 'react';
import { mixQuery } from '../../api/clients';
import { dayWords } from '../../lib/format';
import { whatIf } from './what-if';

/** What is held over which day. */
interface Held {
  readonly entry: CalendarEntryShape;
  readonly on: string;
}

/** While a placement is dragged: what it would do on the day under it. */
export function DragHint({ calendar }: { calendar: CalendarShape }) {
  const [held, setHeld] = useState<Held>();
  useDndMonitor({
    onDragOver: ({ active, over }) => {
      const entry = [...calendar.entries, ...calendar.tray].find(({ id }) => id === active.id);
      const [on = '', clientId] = String(over?.id ?? '')
        .split('/')
        .reverse();
      setHeld(entry && on !== '' && (clientId === undefined || clientId === entry.clientId) ? { entry, on } : undefined);
    },
    onDragEnd: () => setHeld(undefined),
    onDragCancel: () => setHeld(undefined),
  });
  return held && held.entry.on !== held.on ? <Hint held={held} calendar={calendar} /> : null;
}

const TONES = { late: 'text-rhubarb font-medium', clash: 'text-rind font-medium', mix: '' };

function Hint({ held: { entry, on }, calendar }: { held: Held; calendar: CalendarShape }) {
  const month = on.slice(0, 7);
  const mix = useQuery(mixQuery(entry.clientId, month, lastOfMonth(month)));
  const all = whatIf(entry, on, calendar, mix.data);
  return (
    <div role="status" className="fixed z-50 bottom-4 left-1/2 -translate-x-1/2 card shadow-2xl px-4 py-2 max-w-xl text-[13px] no-print">
      <p className="font-medium">
        {entry.pieceTitle} on {dayWords(on)}
      </p>
      {all.length === 0 && <p className="text-muted">Nothing speaks against it.</p>}
      <ul>
        {all.map(({ kind, words }) => (
          <li key={words} className={TONES[kind]}>
            {words}
          </li>
        ))}
      </ul>
    </div>
  );
}
