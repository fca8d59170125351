import type { DueShape } from '@zesting/contract';
import { AlarmClockCheck } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { useClients } from '../../lib/queries';

/** Pieces that have to be done by a day: what is left of them, and whose it is. */
export function Dues({ dues, shown }: { dues: readonly DueShape[]; shown: number }) {
  const { clientOf, client: chosen, to } = useClients();
  const [all, setAll] = useState(false);
  if (dues.length === 0) return null;
  const hidden = dues.length - shown;
  return (
    <>
      <ul className="grid grid-cols-[minmax(0,1fr)] gap-0.5 mt-0.5" aria-label="Due">
        {dues.slice(0, all ? undefined : shown).map((due) => {
          const words = `Due: ${due.stepTitle} of ${due.title}, ${due.doerName ?? 'nobody yet'}`;
          return (
            <li key={due.pieceId}>
              <Link
                to={to(`/pieces/${due.pieceId}`)}
                className="flex items-center gap-1 text-[12px] min-h-[24px] px-1 rounded-sm bg-sunk no-underline hover:underline"
                title={words}
                aria-label={words}
              >
                <AlarmClockCheck size={12} aria-hidden className="shrink-0 text-muted" />
                {!chosen && <span className="font-semibold">{clientOf(due.clientId)?.code}</span>}
                <span className="truncate">{due.title}</span>
              </Link>
            </li>
          );
        })}
      </ul>
      {hidden > 0 && !all && (
        <button type="button" className="block text-pine text-[12px] leading-6 underline h-6 px-1 no-print" onClick={() => setAll(true)}>
          {hidden} more due
        </button>
      )}
    </>
  );
}
