import type { GoingOutRowShape } from '@zesting/contract';
import { isReady } from '@zesting/core';
import { Send } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../lib/api';
import { dayWords, instantWords, zoneWords } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { sendingWords } from '../../lib/sending-words';
import { AskPages } from '../../parts/ask-pages';
import { Button } from '../../ui/button';
import { Findings } from '../../ui/findings';
import { PlacementTag } from '../../ui/placement-tag';
import { ClientCode, Tag } from '../../ui/tags';
import { Thumbnail } from '../../ui/thumbnail';

interface GoingOutRowProps {
  readonly row: GoingOutRowShape;
  /** what the client's clock calls its day, where that is another */
  readonly there: string | null;
  readonly onOpen: (name: string) => void;
}

/** A placement: when and where, how it looks, what speaks against it, who has looked at it, and the way out. */
export function GoingOutRow({ row, there, onOpen }: GoingOutRowProps) {
  const { clientOf, to } = useClients();
  const { zone, role } = useSession();
  const client = clientOf(row.clientId);
  const manages = role === 'lead' || role === 'manager';
  const what = `${row.pieceTitle} on ${row.channelName}`;
  const place = row.zone === zone ? null : zoneWords(row.zone);
  const isBehind = row.state !== 'scheduled' && row.state !== 'pencilled';
  return (
    <li className="grid grid-cols-[3.25rem_minmax(0,1fr)] md:grid-cols-[6.5rem_3.25rem_minmax(0,1.2fr)_minmax(0,1.3fr)_9.5rem_8.5rem] gap-x-3 gap-y-1.5 items-start px-4 py-2.5 border-t border-line first:border-t-0">
      <p className="tabular leading-tight col-span-2 md:col-span-1">
        <span className="font-semibold text-base">{row.at}</span>
        <span className="md:hidden text-muted text-[13px]"> {dayWords(row.on ?? '')}</span>
        {place && <span className="block text-muted text-[12px]">{place} time</span>}
        {there && <span className="block text-rind text-[12px]">{there}</span>}
        {row.byItself && row.state !== 'out' && (
          <span className="inline-flex items-center gap-1 text-muted text-[12px] ml-1 md:ml-0">
            <Send size={11} aria-hidden /> by itself
          </span>
        )}
        {isBehind && <span className="hidden md:block text-muted text-[12px]">{dayWords(row.on ?? '')}</span>}
      </p>
      <Thumbnail pictureId={row.pictureId} size={52} />
      <div className="min-w-0">
        <Link to={to(`/pieces/${row.pieceId}`)} className="font-medium block break-words no-underline hover:underline">
          {row.pieceTitle}
        </Link>
        <p className="text-[13px] text-muted">
          <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} /> {row.channelName},{' '}
          {row.formatName}
        </p>
      </div>
      <div className="min-w-0 col-start-2 md:col-start-auto">
        {row.state === 'sending' || row.state === 'unsure' || row.state === 'failed' ? (
          <OnItsWay row={row} what={what} />
        ) : row.state === 'out' ? (
          <p className="flex flex-wrap items-center gap-1.5 text-[13px]">
            <PlacementTag state="out" />
            <span className="text-muted">{row.outAt && instantWords(row.outAt)}</span>
            {row.sending?.comment === 'given_up' && <Tag tone="rind">First comment missing</Tag>}
            {row.changedSince && <Tag tone="rind">Changed after it went out</Tag>}
            {row.outAddress && (
              <a href={row.outAddress} className="text-pine underline truncate max-w-full" target="_blank" rel="noreferrer">
                {row.outAddress}
              </a>
            )}
          </p>
        ) : row.findings.length === 0 ? (
          <Tag tone="pine">Ready</Tag>
        ) : (
          <>
            <span className="sr-only">{isReady(row.findings) ? 'Ready, but look at this:' : 'Not ready:'}</span>
            <Findings label={`What speaks against ${what}`} findings={row.findings} />
            <AskPages pieceId={row.pieceId} what={what} findings={row.findings} />
          </>
        )}
      </div>
      <div className="col-start-2 md:col-start-auto">
        {!isBehind && <Check key={`${row.seen} ${row.check?.at}`} row={row} what={what} manages={manages} />}
      </div>
      <div className="col-start-2 md:col-start-auto md:justify-self-end">{manages && <Ways row={row} what={what} onOpen={onOpen} />}</div>
    </li>
  );
}

interface WaysProps {
  readonly row: GoingOutRowShape;
  readonly what: string;
  readonly onOpen: (name: string) => void;
}

/** What somebody can do with it now. */
function Ways({ row, what, onOpen }: WaysProps) {
  const { id, state, byItself } = row;
  if (state === 'sending') return null;
  const way = (name: string, words: string, look: 'plain' | 'main' | 'quiet' = 'plain') => (
    <Button look={look} onClick={() => onOpen(`${name}-${id}`)} aria-label={`${words}: ${what}`}>
      {words}
    </Button>
  );
  if (state === 'out') return way('seen', 'Where it is');
  if (state === 'unsure') return way('settle', 'Say which', 'main');
  if (!byItself) return way('post', 'Post by hand');
  return state === 'failed' || state === 'missed' ? (
    <span className="flex flex-wrap md:flex-col items-stretch gap-1">
      {way('send', state === 'failed' ? 'Send again' : 'Send it', 'main')}
      {way('post', 'Post by hand', 'quiet')}
    </span>
  ) : (
    way('send', 'See it')
  );
}

/** Where it is on its way to the channel, and what stands in that way. */
function OnItsWay({ row, what }: { row: GoingOutRowShape; what: string }) {
  const against = row.findings.filter(({ code }) => code !== 'time_passed');
  return (
    <>
      <p className="text-[13px] break-words">
        <PlacementTag state={row.state} /> {row.sending && sendingWords(row.sending, instantWords)}
      </p>
      {row.state === 'failed' && <Findings label={`What speaks against ${what}`} findings={against} />}
    </>
  );
}

/** The tick of who looked at it, for what it was then. */
function Check({ row, what, manages }: { row: GoingOutRowShape; what: string; manages: boolean }) {
  const check = useWrite((isChecked: boolean) =>
    call(`/placements/${row.id}/check`, { method: 'PUT', body: { isChecked, seen: row.seen } }),
  );
  const [wanted, setWanted] = useState<boolean | null>(null); // as it was clicked, until the answer is there
  const words = row.check ? `${row.check.by}, ${instantWords(row.check.at)}` : row.wasChecked ? 'Changed since' : 'Looked at';
  if (!manages) return row.check ? <p className="text-[13px] text-muted">Looked at: {words}</p> : null;
  const put = (isChecked: boolean) => {
    setWanted(isChecked);
    check.mutate(isChecked, { onError: () => setWanted(null) });
  };
  return (
    <label className="flex items-start gap-1.5 min-h-8 text-[13px]" title={row.check ? `Looked at by ${words}` : undefined}>
      <input
        type="checkbox"
        className="size-4 accent-pine mt-0.5"
        aria-label={`${words}: ${what}`}
        checked={wanted ?? row.check !== null}
        onChange={(event) => put(event.target.checked)}
      />
      <span className={row.check ? 'text-muted' : row.wasChecked ? 'text-rind' : ''}>{words}</span>
    </label>
  );
}
