import { useQuery } from '@tanstack/react-query';
import type { AcceptedShape, AcceptRequestBody, RequestShape } from '@zesting/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { routesQuery } from '../../api/production';
import { feasibilityQuery } from '../../api/requests';
import { call, wordsOf } from '../../lib/api';
import { useClients, useDaysOff, useSession, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { PieceFields } from '../../ui/piece-fields';

/** Accepts a request: route, pillar, channels and date, with the earliest date that the route allows. */
export function AcceptDialog({ request, onClose }: { request: RequestShape; onClose: () => void }) {
  const isFurther = request.state === 'accepted';
  const { clientOf, to } = useClients();
  const navigate = useNavigate();
  const { todayOn } = useSession();
  const off = useDaysOff({ clientId: request.clientId, placing: true });
  const client = clientOf(request.clientId);
  const { data: routes } = useQuery(routesQuery);
  const [body, setBody] = useState<AcceptRequestBody>({
    title: request.title,
    routeId: request.routeId,
    pillarId: null,
    channelIds: client?.channels.slice(0, 1).map((channel) => channel.id) ?? [],
    wishOn: request.wishOn,
    notes: '',
    ...(isFurther ? { further: true } : {}),
  });
  const [error, setError] = useState<string>();
  const change = (part: Partial<AcceptRequestBody>) => setBody({ ...body, ...part });
  const feasibility = useQuery(feasibilityQuery(`/requests/${request.id}`, body.routeId));
  const accept = useWrite(
    (accepted: AcceptRequestBody) => call<AcceptedShape>(`/requests/${request.id}/accept`, { method: 'POST', body: accepted }),
    { quiet: true },
  );
  const send = () => {
    if (body.title.trim() === '') setError('Give it a working title.');
    else
      accept.mutate(
        { ...body, title: body.title.trim() },
        { onSuccess: ({ pieceId }) => void navigate(to(`/pieces/${pieceId}`)), onError: (problem) => setError(wordsOf(problem)) },
      );
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={isFurther ? 'One more piece of this request' : 'Accept as a piece'}
      description={
        isFurther ? 'It has the same brief and goes its own way.' : `${request.requesterName} hears by mail that it is accepted.`
      }
    >
      <Field label="Working title" required>
        {(control) => (
          <input {...control} className="field" value={body.title} onChange={(event) => change({ title: event.target.value })} />
        )}
      </Field>
      <PieceFields body={body} client={client} routes={routes} feasibility={feasibility.data} todayOn={todayOn} off={off} change={change} />
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
          {isFurther ? 'Begin it' : 'Accept'}
        </Button>
      </div>
    </Dialog>
  );
}
