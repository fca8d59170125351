import type { PieceShape } from '@zesting/contract';
import { useState, type ComponentProps } from 'react';
import { call } from '../../lib/api';
import { count, dayWords, instantWords, zoneWords } from '../../lib/format';
import { usePlacements } from '../../lib/placements';
import { useClients, useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { OutDialog } from '../../parts/out-dialog';
import { PlacementDialog } from '../../parts/placement-dialog';
import { PlacementTag } from '../../ui/placement-tag';
import { Tag } from '../../ui/tags';
import { EmbargoLine } from './embargo-line';

/** Where the piece goes: each placement with its state, date and time. */
export function PlacementsSection({ piece }: { piece: PieceShape }) {
  const { opened, open, close } = useOpened();
  const { clientOf } = useClients();
  const { restore } = usePlacements();
  const live = piece.placements.filter((placement) => placement.state !== 'cancelled');
  const seen = live.find((placement) => placement.state === 'out' && opened === `seen-${placement.id}`);
  const placed = live.find((placement) => placement.state !== 'out' && opened === `place-${placement.id}`);
  const cancelled = piece.placements.filter((placement) => placement.state === 'cancelled');
  return (
    <section aria-labelledby="placements" className="card p-4">
      <h2 id="placements" className="text-lg mb-2">
        Placements
      </h2>
      {live.length === 0 && <p className="text-muted">On no channel yet.</p>}
      <ul>
        {live.map((placement) => (
          <li key={placement.id} className="flex flex-wrap items-center gap-2 py-1.5 border-t border-line first:border-t-0">
            <span className="font-medium">{placement.channelName}</span>
            <PlacementTag state={placement.state} />
            <span className="tabular text-[13px]">
              {placement.on ? `${dayWords(placement.on)}, ${placement.at} ${zoneWords(placement.zone)}` : ''}
            </span>
            {placement.outAt && (
              <span className="text-muted text-[13px]">
                marked out {instantWords(placement.outAt)}
                {placement.outNumber !== null && `, version ${placement.outNumber}`}
              </span>
            )}
            {placement.changedSince && <Tag tone="rind">Changed after it went out</Tag>}
            {placement.outAddress && (
              <a href={placement.outAddress} className="text-pine underline text-[13px] truncate max-w-48" target="_blank" rel="noreferrer">
                {placement.outAddress}
              </a>
            )}
            {piece.canManage && placement.state === 'out' && (
              <Button
                look="quiet"
                className="ml-auto"
                onClick={() => open(`seen-${placement.id}`)}
                aria-label={`Where it is on ${placement.channelName}`}
              >
                Where it is
              </Button>
            )}
            {piece.canManage && placement.state !== 'out' && (
              <Button
                look="quiet"
                className="ml-auto"
                onClick={() => open(`place-${placement.id}`)}
                aria-label={`${placement.on ? 'Move' : 'Place'} on ${placement.channelName}`}
              >
                {placement.on ? 'Move' : 'Place'}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {piece.canManage && cancelled.length > 0 && (
        <details className="mt-1">
          <summary className="text-muted text-[13px] min-h-6">{count(cancelled.length, 'cancelled placement')}</summary>
          {cancelled.map((placement) => (
            <p key={placement.id} className="flex items-center gap-2 text-[13px]">
              <span>
                {placement.channelName}
                {placement.on ? `, ${dayWords(placement.on)}, ${placement.at}` : ''}
              </span>
              <Button look="quiet" className="ml-auto" onClick={() => restore(placement.id)}>
                Bring it back
              </Button>
            </p>
          ))}
        </details>
      )}
      {piece.canManage && <AddChannel piece={piece} />}
      <EmbargoLine key={piece.id} piece={piece} />
      {seen && piece.canManage && <OutDialog placement={seen} onClose={close} />}
      {placed && piece.canManage && (
        <AsOpened
          key={placed.id}
          placement={placed}
          title={piece.title}
          earliestOn={piece.earliestPublishOn}
          siblings={live.filter((other) => other.id !== placed.id && other.on !== null && other.state !== 'out').length}
          channels={clientOf(piece.clientId)?.channels ?? []}
          onClose={close}
        />
      )}
    </section>
  );
}

/** The dialog of a placement as it was when it was opened: what somebody else changes meanwhile is noticed when it is saved. */
function AsOpened({ placement, ...rest }: ComponentProps<typeof PlacementDialog>) {
  const [kept] = useState(placement);
  return <PlacementDialog placement={kept} {...rest} />;
}

function AddChannel({ piece }: { piece: PieceShape }) {
  const { clientOf } = useClients();
  const add = useWrite((channelId: string) => call(`/pieces/${piece.id}/placements`, { method: 'POST', body: { channelId } }));
  const taken = new Set(piece.placements.filter((placement) => placement.state !== 'cancelled').map((placement) => placement.channelId));
  const free = clientOf(piece.clientId)?.channels.filter((channel) => !taken.has(channel.id)) ?? [];
  if (free.length === 0) return null;
  return (
    <label className="flex items-center gap-2 mt-2 text-[13px]">
      <span className="text-muted whitespace-nowrap">Also on</span>
      <select
        className="field max-w-48"
        value=""
        disabled={add.isPending}
        onChange={(event) => event.target.value && add.mutate(event.target.value)}
      >
        <option value="">choose a channel…</option>
        {free.map((channel) => (
          <option key={channel.id} value={channel.id}>
            {channel.name}
          </option>
        ))}
      </select>
    </label>
  );
}
