import {
  countWorkingDays,
  dayIn,
  getDay,
  isAllSigned,
  isVoided,
  type Day,
  type SignOffPolicy,
  getValue,
  addWorkingDays,
  laterOf,
  workingDayOnOrAfter,
} from '@zesting/core';
import type { ContactShape, PacketShape, PacketsShape, ReadyPieceShape, ReadyShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { clientKey, getDoer, loadCalendars, loadSources, signOffOf, pieceState, type CalendarBook } from '../../planning/index.js';

const CLOSED_SHOWN = 30;

/** Packets of the clients: those out, by due date, and the latest closed ones. */
export async function packetsOf(app: App, clientIds: readonly string[], packetId: string | null = null): Promise<PacketsShape> {
  const rows = await app.read<Omit<PacketShape, 'isPastDue' | 'waitedDays'>>(
    `select k.id, k.client_id as "clientId", k.title, k.due_on as "dueOn", k.sent_at as "sentAt", b.name as "sentBy", k.closed_at as "closedAt",
       (select jsonb_agg(jsonb_build_object('pieceId', p.id, 'number', p.number, 'title', p.title, 'round', i.round, 'outcome', i.outcome) order by p.number)
        from packet_items i join pieces p on p.id = i.piece_id where i.packet_id = k.id) as items,
       coalesce((select jsonb_agg(jsonb_build_object('id', x.id, 'name', x.name, 'email', x.email, 'canAsk', x.can_ask, 'canSignOff', x.can_sign_off) order by x.name)
        from contacts x where x.id = any(k.approver_ids)), '[]') as approvers
     from packets k join people b on b.id = k.sent_by where k.client_id = any($1) and ($2::uuid is null or k.id = $2)
     order by (k.closed_at is not null), case when k.closed_at is null then k.due_on end, k.sent_at desc limit 200`,
    [clientIds, packetId],
  );
  const book = await loadCalendars(app.manager, app.clock.now());
  const shapes = rows.map((row) => withClock(row, book));
  return {
    open: shapes.filter((packet) => packet.closedAt === null),
    closed: shapes.filter((packet) => packet.closedAt !== null).slice(0, CLOSED_SHOWN),
  };
}

function withClock(row: Omit<PacketShape, 'isPastDue' | 'waitedDays'>, book: CalendarBook): PacketShape {
  const client = getDoer(book, clientKey(row.clientId));
  const sentOn = dayIn(row.sentAt, client.zone);
  const waitedDays = Math.max(
    0,
    countWorkingDays(client.calendar, sentOn, client.todayOn) - countWorkingDays(client.calendar, sentOn, sentOn),
  );
  return { ...row, waitedDays, isPastDue: row.closedAt === null && getDay(row.dueOn) < client.todayOn };
}

/** The pieces of a client that can go out for sign-off now, who approves, and when an answer is due. */
export async function readyFor(app: App, clientId: string): Promise<ReadyShape> {
  const candidates = await app.read<{ id: string; number: number; title: string; round: number }>(
    `select p.id, p.number, p.title, p.round from pieces p where p.client_id = $1 and p.list is not null
       and not exists (select 1 from steps s where s.piece_id = p.id and s.kind <> 'sign_off' and s.finished_on is null)
       and not exists (select 1 from packet_items i where i.piece_id = p.id and i.outcome is null) order by p.late_from_on nulls last, p.number`,
    [clientId],
  );
  const book = await loadCalendars(app.manager, app.clock.now());
  const sources = await loadSources(
    app.manager,
    candidates.map((piece) => piece.id),
  );
  const byId = new Map(sources.map((source) => [source.id, source]));
  const pieces = candidates.flatMap<ReadyPieceShape>((piece) => {
    const source = byId.get(piece.id);
    if (!source) return [];
    const signOff = signOffOf(source);
    if (isAllSigned(signOff)) return [];
    const open = source.steps.find((step) => step.finished_on === null);
    const planned = pieceState(source, book).plan?.steps.find((step) => step.id === open?.id);
    return [
      {
        pieceId: piece.id,
        number: piece.number,
        title: piece.title,
        round: piece.round,
        latestFinishOn: planned?.latestFinishOn ?? null,
        isVoided: isVoided(signOff),
      },
    ];
  });
  const [client] = await app.read<{ policy: SignOffPolicy }>('select policy from clients where id = $1', [clientId]);
  const approvers = await app.read<ContactShape>(
    'select id, name, email, can_ask as "canAsk", can_sign_off as "canSignOff" from contacts where client_id = $1 and can_sign_off and archived_at is null order by position, name',
    [clientId],
  );
  return { pieces, approvers, policy: client?.policy ?? { kind: 'any' }, suggestedDueOn: suggestedDue(pieces, book, clientId) };
}

/** Two working days of the client, unless the plan asks for an answer sooner or leaves more time; never before today. */
function suggestedDue(pieces: readonly ReadyPieceShape[], book: CalendarBook, clientId: string): Day {
  const client = getDoer(book, clientKey(clientId));
  const usual = getValue(addWorkingDays(client.calendar, client.todayOn, 2));
  const planned = pieces.flatMap((piece) => (piece.latestFinishOn === null ? [] : [getDay(piece.latestFinishOn)])).sort()[0];
  return laterOf(planned ?? usual, getValue(workingDayOnOrAfter(client.calendar, client.todayOn)));
}
