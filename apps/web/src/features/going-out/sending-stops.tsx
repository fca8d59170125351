import type { SendingNowShape, SendingStopShape } from '@zesting/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../lib/api';
import { dayWords, instantWords } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { Tag } from '../../ui/tags';

type Scope = Pick<SendingStopShape, 'clientId' | 'channelId'>;

const pathOf = ({ clientId, channelId }: Scope): string =>
  channelId ? `/channels/${channelId}/sending/stop` : clientId ? `/clients/${clientId}/sending/stop` : '/sending/stop';

const useStop = () =>
  useWrite(({ scope, isStopped, why }: { scope: Scope; isStopped: boolean; why: string }) =>
    call(pathOf(scope), { method: 'PUT', body: { isStopped, why } }),
  );

/** The name of what is stopped. */
function useScopeName(): (scope: Scope & { readonly channelName?: string | null }) => string {
  const { clientOf } = useClients();
  return ({ clientId, channelName }) => {
    if (clientId === null) return 'everything';
    const client = clientOf(clientId)?.name ?? '';
    return channelName ? `${channelName} of ${client}` : client;
  };
}

/** What is stopped at present, and whose access ends soon: said at the head, since nothing else here is true without it. */
export function SendingStops({ now: { stops, channels } }: { now: SendingNowShape }) {
  const { clientOf } = useClients();
  const { role } = useSession();
  const nameOf = useScopeName();
  const stop = useStop();
  const ending = channels.filter(({ endsSoon }) => endsSoon);
  if (stops.length === 0 && ending.length === 0) return null;
  return (
    <ul className="card mb-4" aria-label="What keeps things from going out by themselves">
      {stops.map((one) => (
        <li
          key={`${one.clientId} ${one.channelId}`}
          className="flex flex-wrap items-center gap-x-3 gap-y-1 px-4 py-2 border-t border-line first:border-t-0"
        >
          <Tag tone="rhubarb">Stopped</Tag>
          <span className="min-w-0 break-words">
            <span className="font-medium">Nothing goes out by itself: {nameOf(one)}.</span>{' '}
            <span className="text-muted">
              {one.why ? `${one.why}. ` : ''}
              {one.by}, {instantWords(one.at)}
            </span>
          </span>
          {(role === 'lead' || (role === 'manager' && one.clientId !== null)) && (
            <Button
              className="ml-auto"
              disabled={stop.isPending}
              onClick={() => stop.mutate({ scope: one, isStopped: false, why: '' })}
              aria-label={`Let it go again: ${nameOf(one)}`}
            >
              Let it go again
            </Button>
          )}
        </li>
      ))}
      {ending.map((channel) => (
        <li key={channel.channelId} className="flex flex-wrap items-center gap-x-3 gap-y-1 px-4 py-2 border-t border-line first:border-t-0">
          <Tag tone="rind">Access ends</Tag>
          <span className="min-w-0 break-words">
            {channel.channelName} of {clientOf(channel.clientId)?.name}: on {dayWords(channel.accessEndsOn ?? '')}. What is meant for later
            does not go out by itself.
          </span>
          {(role === 'lead' || role === 'manager') && (
            <Link to={`/clients/${channel.clientId}?part=channels`} className="ml-auto text-pine underline">
              Renew it
            </Link>
          )}
        </li>
      ))}
    </ul>
  );
}

/** One switch for a channel, a client, or everything that goes out by itself. */
export function StopsDialog({ now: { stops, channels }, onClose }: { now: SendingNowShape; onClose: () => void }) {
  const { role } = useSession();
  const { clientOf } = useClients();
  const stop = useStop();
  const [why, setWhy] = useState('');
  const clientIds = [...new Set(channels.map(({ clientId }) => clientId))];
  const [wanted, setWanted] = useState<Readonly<Record<string, boolean>>>({}); // as it was clicked, until that is stored
  const isStoredAsStopped = (scope: Scope) => stops.some((one) => one.clientId === scope.clientId && one.channelId === scope.channelId);
  const isStopped = (scope: Scope) => wanted[pathOf(scope)] ?? isStoredAsStopped(scope);
  const put = (scope: Scope, next: boolean) => {
    const path = pathOf(scope);
    const keep = (value?: boolean) =>
      setWanted(({ [path]: _, ...others }) => (value === undefined ? others : { ...others, [path]: value }));
    keep(next);
    stop.mutate({ scope, isStopped: next, why: why.trim() }, { onError: () => keep() });
  };
  const everything = { clientId: null, channelId: null };
  const line = (scope: Scope, words: string, indent = '') => (
    <li key={`${scope.clientId} ${scope.channelId}`} className={`${indent} border-t border-line first:border-t-0`}>
      <label className="flex items-center gap-2.5 min-h-9">
        <input
          type="checkbox"
          className="size-4 accent-rhubarb"
          checked={isStopped(scope)}
          disabled={stop.isPending}
          onChange={(event) => put(scope, event.target.checked)}
        />
        <span className="min-w-0 break-words">{words}</span>
        {isStopped(scope) && <Tag tone="rhubarb">Stopped</Tag>}
      </label>
    </li>
  );
  return (
    <Dialog
      open
      onClose={onClose}
      title="Stop sending"
      description="What is ticked does not go out by itself, from this moment on. What has left already is not called back; somebody can still post by hand."
    >
      <Field label="Why" help="Said beside what is stopped. May be left empty.">
        {(control) => <input {...control} className="field" maxLength={300} value={why} onChange={(event) => setWhy(event.target.value)} />}
      </Field>
      <ul aria-label="What is stopped">
        {role === 'lead' && line(everything, 'Everything')}
        {clientIds.flatMap((clientId) => [
          line({ clientId, channelId: null }, clientOf(clientId)?.name ?? ''),
          ...channels
            .filter((channel) => channel.clientId === clientId)
            .map((channel) => line({ clientId, channelId: channel.channelId }, channel.channelName, 'pl-7')),
        ])}
      </ul>
      <div className="flex justify-end mt-3">
        <Button onClick={onClose}>Done</Button>
      </div>
    </Dialog>
  );
}
