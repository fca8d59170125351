import type { MyStepRow } from '@zesting/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { count, dayWords, minutesWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { Button, buttonClass } from '../../ui/button';
import { ClientCode, DangerTag, Tag } from '../../ui/tags';
import { Wheel } from '../../ui/wheel';
import { DESK_LINE } from './desk-line';

const FIRST = 5;

/** What the manager has to do with their own hands, in the order to do it; what waits for others is only counted. */
export function OwnSteps({ rows }: { rows: readonly MyStepRow[] }) {
  const { client, to } = useClients();
  const [isOpen, setOpen] = useState(false);
  const own = rows.filter((row) => !client || row.clientId === client.id);
  const now = own.filter((row) => row.atHand);
  const later = own.length - now.length;
  if (now.length === 0) return null;
  const left = now.length - FIRST;
  return (
    <section aria-labelledby="own-steps" className="card overflow-hidden mb-4">
      <h2 id="own-steps" className="flex items-center gap-2 px-4 pt-2.5 pb-1 text-[13px] font-sans tracking-normal">
        <Tag tone="pine">Yours to do</Tag>
        <span className="text-muted font-normal tabular">{now.length}</span>
        {later > 0 && <span className="text-muted font-normal">{count(later, 'more comes', 'more come')} to you later</span>}
      </h2>
      <ul>
        {now.slice(0, isOpen ? now.length : FIRST).map((row) => (
          <li key={row.stepId} className={DESK_LINE}>
            <Wheel segments={row.wheel} size={24} />
            <ClientCode code={row.clientCode} colour={row.clientColour} name={row.clientName} />
            <Link
              to={to(`/pieces/${row.pieceId}`)}
              className="font-medium line-clamp-2 break-words no-underline hover:underline"
              title={row.pieceTitle}
            >
              {row.pieceTitle}
            </Link>
            <span className="text-muted hidden md:flex items-center gap-2 min-w-0">
              <span className="line-clamp-2">
                {row.stepTitle}
                {row.round > 1 && `, round ${row.round}`} · {minutesWords(row.leftMinutes)}
                {row.remark && ` · handed back: ${row.remark}`}
              </span>
              <DangerTag danger={row.danger === 'fine' ? null : row.danger} />
            </span>
            <span className="tabular hidden md:block whitespace-nowrap">
              {row.latestFinishOn ? `by ${dayWords(row.latestFinishOn)}` : <span className="text-muted">no date</span>}
            </span>
            <Link to={to(`/pieces/${row.pieceId}`)} className={buttonClass('plain', 'justify-self-end text-[13px]')}>
              {row.startedOn ? 'Go on' : 'Do it'}
            </Link>
          </li>
        ))}
      </ul>
      {left > 0 && !isOpen && (
        <Button look="quiet" className="mx-1 mb-1" onClick={() => setOpen(true)}>
          Show {left} more of yours
        </Button>
      )}
    </section>
  );
}
