import { useQuery } from '@tanstack/react-query';
import { AcceptRequestBody, type AcceptedShape, type RequestShape, type RouteShape, type SplitPieceBody } from '@zesting/contract';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { routesQuery } from '../../api/production';
import { feasibilityQuery } from '../../api/requests';
import { call } from '../../lib/api';
import { useClients, useDaysOff, useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Button, IconButton } from '../../ui/button';
import { DayInput } from '../../ui/day-field';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { PieceFields } from '../../ui/piece-fields';
import { acceptanceOf } from './acceptance';

/** Accepts a request: route, pillar, channels and date, with the earliest date that the route allows. */
export function AcceptDialog({ request, onClose }: { request: RequestShape; onClose: () => void }) {
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
      ...acceptanceOf(request, client, routes?.[0]?.id ?? ''),
      ...(isFurther ? { further: true } : {}),
    },
    {
      send: async (body) => {
        const { pieceIds } = await accept.mutateAsync({ ...body, title: body.title.trim() });
        if (pieceIds.length === 1) void navigate(to(`/pieces/${pieceIds[0]}`), { replace: true });
        else onClose();
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
      <AlsoPieces body={body} routes={routes} todayOn={todayOn} change={change} error={errorOf('also')} />
    </FormDialog>
  );
}

interface AlsoProps {
  readonly body: AcceptRequestBody;
  readonly routes: readonly RouteShape[] | undefined;
  readonly todayOn: string;
  readonly change: (part: Partial<AcceptRequestBody>) => void;
  readonly error: string | undefined;
}

/** What else the request becomes at once: each its own piece with the whole brief, on the same channels unless changed later. */
function AlsoPieces({ body, routes, todayOn, change, error }: AlsoProps) {
  const also = body.also ?? [];
  const put = (at: number, part: Partial<SplitPieceBody>) =>
    change({ also: also.map((piece, index) => (index === at ? { ...piece, ...part } : piece)) });
  const { title, routeId, pillarId = null, channelIds, wishOn = null, giveFirst = false } = body;
  const more = () =>
    change({ also: [...also, { title: `${title}, part ${also.length + 2}`, routeId, pillarId, channelIds, wishOn, giveFirst }] });
  return (
    <>
      {also.length > 0 && (
        <ol aria-label="Further pieces" className="grid gap-2 mb-2">
          {also.map((piece, at) => (
            <li key={at} className="card p-3 grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_2rem] gap-2 items-center">
              <input
                className="field col-span-full"
                aria-label={`Title of piece ${at + 2}`}
                maxLength={200}
                value={piece.title}
                onChange={(event) => put(at, { title: event.target.value })}
              />
              <select
                className="field"
                aria-label={`Route of piece ${at + 2}`}
                value={piece.routeId}
                onChange={(event) => put(at, { routeId: event.target.value })}
              >
                {routes?.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
              <DayInput
                label={`Day of piece ${at + 2}`}
                todayOn={todayOn}
                value={piece.wishOn ?? ''}
                onChange={(on) => put(at, { wishOn: on || null })}
              />
              <IconButton label={`Take out piece ${at + 2}`} onClick={() => change({ also: also.filter((_, index) => index !== at) })}>
                <Trash2 size={15} aria-hidden />
              </IconButton>
              <input
                className="field col-span-full"
                aria-label={`What of the brief is for piece ${at + 2}`}
                placeholder="What of the brief is for this one, for its makers"
                maxLength={10_000}
                value={piece.notes ?? ''}
                onChange={(event) => put(at, { notes: event.target.value })}
              />
            </li>
          ))}
        </ol>
      )}
      {error && <p className="text-rhubarb font-medium text-[13px] mb-2">Each piece needs a title.</p>}
      <Button look="quiet" className="mb-3 -ml-3" disabled={also.length >= 20} onClick={more}>
        <Plus size={15} aria-hidden /> Split off another piece
      </Button>
    </>
  );
}
