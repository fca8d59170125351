import { useQuery } from '@tanstack/react-query';
import { AcceptRequestBody, type AcceptedShape, type RequestShape } from '@zesting/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { routesQuery } from '../../api/production';
import { feasibilityQuery } from '../../api/requests';
import { call } from '../../lib/api';
import { useClients, useDaysOff, useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { PieceFields } from '../../ui/piece-fields';

/** Accepts a request: route, pillar, channels and date, with the earliest date that the route allows. */
export function AcceptDialog({ request, onClose }: { request: RequestShape; onClose: () => void }) {
  const { takes } = request;
  const [isFurther] = useState(request.state === 'accepted'); // as it was when the dialog was opened
  const { clientOf, to } = useClients();
  const navigate = useNavigate();
  const { todayOn } = useSession();
  const off = useDaysOff({ clientId: request.clientId, placing: true });
  const client = clientOf(request.clientId);
  const { data: routes } = useQuery(routesQuery);
  const accept = useWrite(
    (accepted: AcceptRequestBody) => call<AcceptedShape>(`/requests/${request.id}/accept`, { method: 'POST', body: accepted }),
    { quiet: true },
  );
  const form = useBodyForm<AcceptRequestBody>(
    AcceptRequestBody,
    {
      title: request.title,
      routeId: takes.routeId ?? routes?.[0]?.id ?? '',
      pillarId: takes.pillarId ?? null,
      channelIds: takes.channelIds?.length ? [...takes.channelIds] : (client?.channels.slice(0, 1).map((channel) => channel.id) ?? []),
      wishOn: request.wishOn,
      notes: '',
      ...(isFurther ? { further: true } : {}),
    },
    {
      send: async (body) => {
        const { pieceId } = await accept.mutateAsync({ ...body, title: body.title.trim() });
        void navigate(to(`/pieces/${pieceId}`), { replace: true });
      },
    },
  );
  const { body, change, errorOf } = form;
  const feasibility = useQuery(feasibilityQuery(`/requests/${request.id}`, body.routeId));
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={isFurther ? 'One more piece of this request' : 'Accept as a piece'}
      description={
        isFurther ? 'It has the same brief and goes its own way.' : `${request.requesterName} hears by mail that it is accepted.`
      }
      action={isFurther ? 'Begin it' : 'Accept'}
    >
      <Field label="Working title" required error={errorOf('title')}>
        {(control) => (
          <input {...control} className="field" value={body.title} onChange={(event) => change({ title: event.target.value })} />
        )}
      </Field>
      <PieceFields
        body={body}
        client={client}
        routes={routes}
        feasibility={feasibility.data}
        todayOn={todayOn}
        off={off}
        change={change}
        errorOf={errorOf}
      />
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
    </FormDialog>
  );
}
