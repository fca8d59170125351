import type { MarkOutBody, PieceShape, PlacementShape } from '@zesting/contract';
import { useState } from 'react';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords, instantWords, zoneWords } from '../../lib/format';
import { usePlacements } from '../../lib/placements';
import { useClients, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { PlacementDialog } from '../../parts/placement-dialog';
import { PlacementTag } from '../../ui/placement-tag';
import { Tag } from '../../ui/tags';

/** Where the piece goes: each placement with its state, date and time. */
export function PlacementsSection({ piece }: { piece: PieceShape }) {
  const [open, setOpen] = useState<PlacementShape | null>(null);
  const [addressed, setAddressed] = useState<PlacementShape | null>(null);
  const { clientOf } = useClients();
  const { restore } = usePlacements();
  const live = piece.placements.filter((placement) => placement.state !== 'cancelled');
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
                as version {placement.outNumber}, said {instantWords(placement.outAt)}
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
                onClick={() => setAddressed(placement)}
                aria-label={`Where it can be seen on ${placement.channelName}`}
              >
                Where it is
              </Button>
            )}
            {piece.canManage && placement.state !== 'out' && (
              <Button
                look="quiet"
                className="ml-auto"
                onClick={() => setOpen(placement)}
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
      {addressed && <AddressDialog placement={addressed} onClose={() => setAddressed(null)} />}
      {open && (
        <PlacementDialog
          placement={open}
          title={piece.title}
          earliestOn={piece.earliestPublishOn}
          siblings={live.filter((other) => other.id !== open.id && other.on !== null && other.state !== 'out').length}
          channels={clientOf(piece.clientId)?.channels ?? []}
          onClose={() => setOpen(null)}
        />
      )}
    </section>
  );
}

/** Where what went out can be seen: the one thing about it that can be corrected. */
function AddressDialog({ placement, onClose }: { placement: PlacementShape; onClose: () => void }) {
  const [address, setAddress] = useState(placement.outAddress ?? '');
  const [error, setError] = useState<string>();
  const correct = useWrite(
    (body: MarkOutBody) => call(`/placements/${placement.id}/address`, { method: 'PATCH', body, version: placement.version }),
    { quiet: true },
  );
  return (
    <Dialog open onClose={onClose} title={`Where it is on ${placement.channelName}`}>
      <Field label="Address" help="May be empty." error={error}>
        {(control) => (
          <input
            {...control}
            type="url"
            className="field"
            placeholder="https://…"
            value={address}
            onChange={(event) => setAddress(event.target.value)}
          />
        )}
      </Field>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Leave as it was</Button>
        <Button
          look="main"
          disabled={correct.isPending}
          onClick={() =>
            correct.mutate(
              { address: address.trim() || null },
              { onSuccess: onClose, onError: (problem) => setError(`${wordsOf(problem)} An address begins with https://`) },
            )
          }
        >
          Save
        </Button>
      </div>
    </Dialog>
  );
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
