import { useQuery } from '@tanstack/react-query';
import type { PieceMadeShape, RunUpBody, RunUpShape } from '@zesting/contract';
import type { LeadStanding } from '@zesting/core';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { routesQuery } from '../api/production';
import { runUpQuery } from '../api/plan';
import { call } from '../lib/api';
import { count, dayWords } from '../lib/format';
import { useClients, useWrite } from '../lib/queries';
import { STAGE_WORDS } from '../lib/words';
import { Button, IconButton } from '../ui/button';
import { Tag, type Tone } from '../ui/tags';

export const STANDING_WORDS: Record<LeadStanding, string> = {
  ahead: 'in time',
  now: 'in time',
  tight: 'tight',
  too_late: 'too late',
  past: 'past',
};
const STANDING_TONES: Record<LeadStanding, Tone> = { ahead: 'pine', now: 'pine', tight: 'rind', too_late: 'rhubarb', past: 'calm' };

/** "3 days before", "on the day", "1 day after". */
export const offsetWords = (days: number): string =>
  days === 0 ? 'on the day' : `${count(Math.abs(days), 'day')} ${days < 0 ? 'before' : 'after'}`;

/** The pieces that go before and after a marker: made or still to be made. */
export function RunUpList({ markerId, clientId }: { markerId: string; clientId: string }) {
  const { data = [] } = useQuery(runUpQuery(markerId));
  return (
    <section aria-labelledby="run-up" className="border-t border-line pt-3 mb-3">
      <h3 id="run-up" className="text-base mb-1">
        Run-up
      </h3>
      {data.length === 0 && <p className="text-muted text-[13px]">A teaser some days before, a reminder on the day: nothing yet.</p>}
      <ul>
        {data.map((line) => (
          <RunUpLine key={line.id} line={line} />
        ))}
      </ul>
      <AddRunUp markerId={markerId} clientId={clientId} />
    </section>
  );
}

function RunUpLine({ line }: { line: RunUpShape }) {
  const { to } = useClients();
  const make = useWrite(() => call<PieceMadeShape>(`/run-ups/${line.id}/piece`, { method: 'POST' }));
  const remove = useWrite(() => call(`/run-ups/${line.id}`, { method: 'DELETE' }));
  const hasMoved = line.pieceOn !== null && line.pieceOn !== line.on;
  return (
    <li className="flex flex-wrap items-center gap-x-2 gap-y-1 py-1.5 border-t border-line text-[13px]">
      <span className="tabular w-24">{dayWords(line.on)}</span>
      <span className="flex-1 min-w-40">
        {line.pieceId ? (
          <Link to={to(`/pieces/${line.pieceId}`)} className="font-medium no-underline hover:underline">
            {line.pieceTitle}
          </Link>
        ) : (
          <span className="font-medium">{line.title}</span>
        )}
        <span className="block text-muted">
          {offsetWords(line.offsetDays)}, {line.channelName}, {line.routeName}
        </span>
        {hasMoved && line.pieceOn && <span className="block text-rind">stands on {dayWords(line.pieceOn)}</span>}
      </span>
      {line.pieceStage ? (
        <Tag>{STAGE_WORDS[line.pieceStage]}</Tag>
      ) : (
        <>
          <Tag tone={STANDING_TONES[line.standing]}>{STANDING_WORDS[line.standing]}</Tag>
          {line.standing !== 'past' && (
            <Button
              className="min-h-7 text-[13px]"
              disabled={make.isPending}
              aria-label={`Make “${line.title}”`}
              onClick={() => make.mutate(undefined)}
            >
              Make it
            </Button>
          )}
        </>
      )}
      <IconButton label={`Take “${line.title}” off the run-up`} disabled={remove.isPending} onClick={() => remove.mutate(undefined)}>
        <X size={14} aria-hidden />
      </IconButton>
    </li>
  );
}

function AddRunUp({ markerId, clientId }: { markerId: string; clientId: string }) {
  const { clientOf } = useClients();
  const { data: routes = [] } = useQuery(routesQuery);
  const channels = clientOf(clientId)?.channels ?? [];
  const [title, setTitle] = useState('');
  const [days, setDays] = useState('3');
  const [way, setWay] = useState<'before' | 'after'>('before');
  const [channelId, setChannelId] = useState('');
  const [routeId, setRouteId] = useState('');
  const add = useWrite((body: RunUpBody) => call<RunUpShape[]>(`/markers/${markerId}/run-up`, { method: 'POST', body }));
  const [channel, route] = [channelId || channels[0]?.id, routeId || routes[0]?.id];
  if (!channel || !route) return null;
  const away = Math.min(365, Number(days) || 0);
  const send = () => {
    if (title.trim() === '' || add.isPending) return;
    const body = { title: title.trim(), offsetDays: way === 'before' ? -away : away, channelId: channel, routeId: route };
    add.mutate(body, { onSuccess: () => setTitle('') });
  };
  return (
    // inside another form: Enter adds a line and does not send that
    <div className="grid grid-cols-2 sm:grid-cols-4 gap-2 border-t border-line pt-2">
      <input
        className="field col-span-2"
        aria-label="What goes out"
        placeholder="Teaser"
        maxLength={200}
        value={title}
        onChange={(event) => setTitle(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          send();
        }}
      />
      <input
        className="field tabular"
        aria-label="Days away"
        inputMode="numeric"
        value={days}
        onChange={(event) => setDays(event.target.value.replaceAll(/\D/g, '').slice(0, 3))}
      />
      <select
        className="field"
        aria-label="Before or after"
        value={way}
        onChange={(event) => setWay(event.target.value === 'after' ? 'after' : 'before')}
      >
        <option value="before">days before</option>
        <option value="after">days after</option>
      </select>
      <select className="field" aria-label="Its channel" value={channel} onChange={(event) => setChannelId(event.target.value)}>
        {channels.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
      <select className="field col-span-2" aria-label="Its route" value={route} onChange={(event) => setRouteId(event.target.value)}>
        {routes.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
      <Button disabled={title.trim() === '' || add.isPending} onClick={send}>
        Add
      </Button>
    </div>
  );
}
