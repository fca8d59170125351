import { useQuery } from '@tanstack/react-query';
import { BeginPieceBody, type PieceMadeShape, type PieceShape } from '@zesting/contract';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { routesQuery } from '../api/production';
import { feasibilityQuery } from '../api/requests';
import { call } from '../lib/api';
import { useClients, useDaysOff, useSession, useWrite } from '../lib/queries';
import { useBodyForm } from '../lib/use-body-form';
import { ClientField } from './client-field';
import { Dialog } from '../ui/dialog';
import { Field } from '../ui/field';
import { FormDialog } from '../ui/form-dialog';
import { PieceFields } from '../ui/piece-fields';

interface BeginPieceProps {
  /** the client that it is for, where that is known */
  readonly clientId?: string | undefined;
  /** the day on the calendar that it was begun from */
  readonly on?: string | undefined;
  /** the piece whose content it begins with */
  readonly from?: PieceShape | undefined;
  readonly onClose: () => void;
}

/** Begins a piece by hand: for whom, what kind, for which day; its title and brief now or later. */
export function BeginPieceDialog({ clientId, on, from, onClose }: BeginPieceProps) {
  const { clients, client: chosen, clientOf, to } = useClients();
  const navigate = useNavigate();
  const { todayOn } = useSession();
  const { data: routes } = useQuery(routesQuery);
  const [forId, setForId] = useState(from?.clientId ?? clientId ?? chosen?.id ?? clients[0]?.id ?? '');
  const client = clientOf(forId);
  const firstChannel = (id: string) =>
    clientOf(id)
      ?.channels.slice(0, 1)
      .map((channel) => channel.id) ?? [];
  const begin = useWrite((sent: BeginPieceBody) => call<PieceMadeShape>(`/clients/${forId}/pieces`, { method: 'POST', body: sent }), {
    quiet: true,
  });
  const form = useBodyForm<BeginPieceBody>(
    BeginPieceBody,
    {
      routeId: (routes?.find(({ formatName }) => formatName === from?.formatName) ?? routes?.[0])?.id ?? '',
      title: from?.title ?? '',
      pillarId: from?.pillarId ?? null,
      channelIds: from ? from.content.channels.map(({ channelId: id }) => id) : firstChannel(forId),
      wishOn: on ?? null,
      notes: '',
      leaveOut: [],
      isPencilled: on !== undefined,
      fromId: from?.id ?? null,
    },
    {
      send: async (sent) => {
        const { pieceId } = await begin.mutateAsync({ ...sent, title: sent.title?.trim() ?? '' });
        void navigate(to(`/pieces/${pieceId}`), { replace: true });
      },
    },
  );
  const { body, change, errorOf } = form;
  const firstRoute = routes?.[0]?.id ?? '';
  useEffect(() => {
    if (body.routeId === '' && firstRoute !== '') change({ routeId: firstRoute }); // they may come after the dialog
  });
  const off = useDaysOff({ clientId: forId || undefined, placing: true });
  const feasibility = useQuery({ ...feasibilityQuery(`/clients/${forId}`, body.routeId), enabled: forId !== '' && body.routeId !== '' });
  if (clients.length === 0 || routes?.length === 0)
    return (
      <Dialog open onClose={onClose} title="Begin a piece">
        <p>
          {clients.length === 0 ? 'A piece is a client’s, and there is no client yet. ' : 'A piece takes a route, and there is none yet. '}
          <Link to={clients.length === 0 ? '/clients' : '/routes'} className="text-pine underline">
            {clients.length === 0 ? 'Take one on' : 'Make one'}
          </Link>
        </p>
      </Dialog>
    );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={from ? `Begin another from “${from.title}”` : 'Begin a piece'}
      description={
        from
          ? 'It begins with the same words, pictures and tags; what is done to the one changes nothing in the other.'
          : 'Without a request: what the team plans or hears by the way.'
      }
      action="Begin"
    >
      {!from && (
        <ClientField
          required
          clientId={forId}
          onChange={(clientId) => {
            setForId(clientId);
            change({ channelIds: firstChannel(clientId), pillarId: null });
          }}
        />
      )}
      <Field label="Working title" help="Left empty, it is called by its format and day until it has one." error={errorOf('title')}>
        {(control) => (
          <input
            {...control}
            className="field"
            maxLength={200}
            value={body.title}
            onChange={(event) => change({ title: event.target.value })}
          />
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
      {body.wishOn && body.channelIds.length > 0 && (
        <label className="flex items-center gap-2 min-h-8 mb-2 -mt-2">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            checked={body.isPencilled}
            onChange={(event) => change({ isPencilled: event.target.checked })}
          />
          Pencil it on that day, at the usual time of each channel
        </label>
      )}
      <Field label="Brief" help="What the makers need to know. It can be added to later, by all of the team." error={errorOf('notes')}>
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={3}
            value={body.notes}
            onChange={(event) => change({ notes: event.target.value })}
          />
        )}
      </Field>
    </FormDialog>
  );
}
