import { useQuery } from '@tanstack/react-query';
import type { AcceptedShape, AcceptRequestBody, FeasibilityShape, RequestShape } from '@zesting/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call, wordsOf } from '../../lib/api';
import { dayWords, minutesWords } from '../../lib/format';
import { routesQuery, useClients, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';

/** Accepts a request: route, pillar, channels and date, with the earliest date that the route allows. */
export function AcceptDialog({ request, onClose }: { request: RequestShape; onClose: () => void }) {
  const { clientOf, to } = useClients();
  const navigate = useNavigate();
  const client = clientOf(request.clientId);
  const { data: routes } = useQuery(routesQuery);
  const [body, setBody] = useState<AcceptRequestBody>({
    title: request.title,
    routeId: request.routeId,
    pillarId: null,
    channelIds: client?.channels.slice(0, 1).map((channel) => channel.id) ?? [],
    wishOn: request.wishOn,
    notes: '',
  });
  const [error, setError] = useState<string>();
  const change = (part: Partial<AcceptRequestBody>) => setBody({ ...body, ...part });
  const feasibility = useQuery({
    queryKey: ['feasibility', request.id, body.routeId],
    queryFn: () => call<FeasibilityShape>(`/requests/${request.id}/feasibility/${body.routeId}`),
  });
  const accept = useWrite(
    (accepted: AcceptRequestBody) => call<AcceptedShape>(`/requests/${request.id}/accept`, { method: 'POST', body: accepted }),
    { quiet: true },
  );
  const send = () => {
    if (body.title.trim() === '') setError('Give it a working title.');
    else if (body.channelIds.length === 0) setError('Choose at least one channel.');
    else
      accept.mutate(
        { ...body, title: body.title.trim() },
        { onSuccess: ({ pieceId }) => void navigate(to(`/pieces/${pieceId}`)), onError: (problem) => setError(wordsOf(problem)) },
      );
  };
  const toggle = (id: string) =>
    change({ channelIds: body.channelIds.includes(id) ? body.channelIds.filter((other) => other !== id) : [...body.channelIds, id] });
  const earliest = feasibility.data?.earliestOn;
  const tooSoon = earliest !== undefined && typeof body.wishOn === 'string' && body.wishOn !== '' && body.wishOn < earliest;
  return (
    <Dialog open onClose={onClose} title="Accept as a piece" description={`${request.requesterName} hears by mail that it is accepted.`}>
      <Field label="Working title" required>
        {(control) => (
          <input {...control} className="field" value={body.title} onChange={(event) => change({ title: event.target.value })} />
        )}
      </Field>
      <Field label="Route" help={routes?.find((route) => route.id === body.routeId)?.steps.join(' → ')}>
        {(control) => (
          <select {...control} className="field" value={body.routeId} onChange={(event) => change({ routeId: event.target.value })}>
            {routes?.map((route) => (
              <option key={route.id} value={route.id}>
                {route.name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Field label="Pillar">
        {(control) => (
          <select
            {...control}
            className="field"
            value={body.pillarId ?? ''}
            onChange={(event) => change({ pillarId: event.target.value || null })}
          >
            <option value="">None yet</option>
            {client?.pillars.map((pillar) => (
              <option key={pillar.id} value={pillar.id}>
                {pillar.name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <fieldset className="mb-3.5">
        <legend className="font-medium mb-1">Channels</legend>
        <div className="flex flex-wrap gap-x-5 gap-y-1">
          {client?.channels.map((channel) => (
            <label key={channel.id} className="inline-flex items-center gap-2 min-h-8">
              <input
                type="checkbox"
                className="size-4 accent-pine"
                checked={body.channelIds.includes(channel.id)}
                onChange={() => toggle(channel.id)}
              />
              {channel.name}
            </label>
          ))}
        </div>
      </fieldset>
      <Field
        label="Wish date"
        help={
          earliest && (
            <span className={tooSoon ? 'text-rind font-medium' : ''}>
              {tooSoon ? 'This cannot be met. ' : ''}The earliest date this route allows is {dayWords(earliest)}; it adds{' '}
              {minutesWords(feasibility.data?.effortMinutes ?? 0)} of work.{' '}
              {tooSoon && (
                <button type="button" className="underline min-h-6" onClick={() => change({ wishOn: earliest })}>
                  Take {dayWords(earliest)}
                </button>
              )}
            </span>
          )
        }
      >
        {(control) => (
          <input
            {...control}
            className="field"
            type="date"
            value={body.wishOn ?? ''}
            onChange={(event) => change({ wishOn: event.target.value || null })}
          />
        )}
      </Field>
      <Field label="Notes for the makers" help="They read it beside the answers.">
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={2}
            value={body.notes}
            onChange={(event) => change({ notes: event.target.value })}
          />
        )}
      </Field>
      {error && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {error}
        </p>
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Not yet</Button>
        <Button look="main" onClick={send} disabled={accept.isPending}>
          Accept
        </Button>
      </div>
    </Dialog>
  );
}
