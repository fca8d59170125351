import { useQuery } from '@tanstack/react-query';
import type { ClientShape, PackShape } from '@zesting/contract';
import { addDays, lastOfMonth, mondayOf, type Day } from '@zesting/core';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { packQuery } from '../../api/going-out';
import { wordsOf } from '../../lib/api';
import { bytesWords, count, dayWords } from '../../lib/format';
import { useSession } from '../../lib/queries';
import { buttonClass } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { DayField } from '../../ui/day-field';
import { Dialog } from '../../ui/dialog';
import { Findings } from '../../ui/findings';

/** A client's week or month to be taken away: what is in it, what is left out and why, and the ZIP. */
export function PackDialog({ client, onClose }: { client: ClientShape; onClose: () => void }) {
  const { todayOn } = useSession();
  const today = todayOn as Day; // a day of the contract's
  const monday = mondayOf(today);
  const nextMonth = addDays(lastOfMonth(today), 1);
  const periods = [
    ['This week', monday, addDays(monday, 6)],
    ['Next week', addDays(monday, 7), addDays(monday, 13)],
    ['This month', `${today.slice(0, 7)}-01`, lastOfMonth(today)],
    ['Next month', nextMonth, lastOfMonth(nextMonth)],
  ] as const;
  const [[from, to], setSpan] = useState<readonly [string, string]>([periods[1][1], periods[1][2]]);
  return (
    <Dialog
      open
      onClose={onClose}
      title={`A pack for ${client.name}`}
      description="All that is signed, as files that sort in the order in which they go out, with a document and a schedule."
    >
      <div className="mb-3">
        <Choice
          label="Usual periods"
          value={periods.find(([, first, last]) => from === first && to === last)?.[0] ?? ''}
          options={periods.map(([words]) => [words, words] as const)}
          onChange={(words) => {
            const [, first, last] = periods.find(([name]) => name === words) ?? periods[0];
            setSpan([first, last]);
          }}
        />
      </div>
      <div className="grid grid-cols-2 gap-3">
        <DayField label="From" todayOn={todayOn} value={from} onChange={(on) => setSpan([on, to])} />
        <DayField label="To" todayOn={todayOn} value={to} onChange={(on) => setSpan([from, on])} />
      </div>
      {from && to ? <Contents clientId={client.id} span={`from=${from}&to=${to}`} /> : <p className="text-muted">Choose both days.</p>}
    </Dialog>
  );
}

function Contents({ clientId, span }: { clientId: string; span: string }) {
  const pack = useQuery(packQuery(clientId, span));
  if (pack.isError)
    return (
      <p role="alert" className="text-rhubarb font-medium">
        {wordsOf(pack.error)}
      </p>
    );
  if (!pack.data) return <p className="text-muted min-h-9">Looking what is signed…</p>;
  const { count: placed, files, bytes, leftOut } = pack.data;
  return (
    <>
      <p className="flex flex-wrap items-center gap-3 mb-3">
        {placed === 0 ? (
          <span className="text-muted">Nothing on these days is signed yet.</span>
        ) : (
          <>
            <a href={`/api/clients/${clientId}/pack/zip?${span}`} download className={buttonClass('main')}>
              <Download size={15} aria-hidden /> Take the pack
            </a>
            <span className="text-muted">
              {count(placed, 'placement')}, {count(files, 'file')}
              {files > 0 && ` of ${bytesWords(bytes)}`}
            </span>
          </>
        )}
      </p>
      <LeftOut leftOut={leftOut} />
    </>
  );
}

/** What is not in it, with what speaks against it. */
function LeftOut({ leftOut }: Pick<PackShape, 'leftOut'>) {
  if (leftOut.length === 0) return null;
  return (
    <section aria-labelledby="left-out">
      <h3 id="left-out" className="text-base mb-1">
        {leftOut.length} not in it
      </h3>
      <ul>
        {leftOut.map((row) => (
          <li key={row.id} className="border-t border-line py-1.5">
            <p className="font-medium break-words">{row.pieceTitle}</p>
            <p className="text-muted text-[13px]">
              {row.channelName}, {dayWords(row.on ?? '')} at {row.at}
            </p>
            <Findings label={`What speaks against ${row.pieceTitle} on ${row.channelName}`} findings={row.findings} />
          </li>
        ))}
      </ul>
    </section>
  );
}
