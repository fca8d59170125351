import {
  addDays,
  countWorkingDays,
  dayIn,
  getDay,
  isAllSigned,
  isVoided,
  type Day,
  type SignOffPolicy,
  addWorkingDays,
  laterOf,
  workingDayOnOrAfter,
} from '@zesting/core';
import type { ContactShape, PacketShape, PacketsShape, ReadyPieceShape, ReadyShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { awaitedOf } from '../../notices/index.js';
import {
  clientKey,
  getDoer,
  goneFrom,
  loadCalendars,
  loadSources,
  signOffOf,
  pieceState,
  type CalendarBook,
} from '../../planning/index.js';
import { answerForecast, firstPicture } from '../../production/index.js';
import { silenceFrom } from '../use-cases/decide-for-client.js';

/** So many of those out and of those closed are shown; how many are out in all is said. */
const OPEN_SHOWN = 100;
const CLOSED_SHOWN = 30;

/** Packets of the clients: those out, by due date, and the latest closed ones. */
export async function packetsOf(app: App, clientIds: readonly string[], packetId: string | null = null): Promise<PacketsShape> {
  const read = (from: string, order: string) =>
    app.read<PacketRow>(
      `select k.id, k.client_id as "clientId", k.title, k.due_on as "dueOn", k.sent_at as "sentAt", b.name as "sentBy", k.closed_at as "closedAt",
         k.chased_at as "chasedAt", (select max(r.sent_at) from reminders r where r.thing = 'packet' and r.thing_id = k.id) as "remindedAt",
         k.policy, k.approver_ids as "approverIds", ${goneFrom('k.approver_ids')} as "goneIds",
         (select jsonb_agg(jsonb_build_object('pieceId', p.id, 'number', p.number, 'title', p.title, 'round', i.round, 'outcome', i.outcome, 'pictureId', ${firstPicture('v.content')}) order by p.number)
          from packet_items i join pieces p on p.id = i.piece_id join versions v on v.id = i.version_id where i.packet_id = k.id) as items,
         coalesce((select jsonb_agg(jsonb_build_object('id', x.id, 'name', x.name, 'email', x.email, 'canAsk', x.can_ask, 'canSignOff', x.can_sign_off)
             order by array_position(k.approver_ids, x.id))
          from contacts x where x.id = any(k.approver_ids)), '[]') as approvers
       from (${from}) f join packets k on k.id = f.id join people b on b.id = k.sent_by order by ${order}`,
      [clientIds, packetId],
    );
  const open = await read(
    `select id from packets where client_id = any($1) and ($2::uuid is null or id = $2) and closed_at is null order by due_on, sent_at desc limit ${OPEN_SHOWN}`,
    'k.due_on, k.sent_at desc',
  );
  // the latest of each client, then of all: years of closed packets are not sorted for it
  const closed = await read(
    `select x.id from unnest($1::uuid[]) c (id) cross join lateral (
       select id, sent_at from packets where client_id = c.id and ($2::uuid is null or id = $2) and closed_at is not null
       order by sent_at desc limit ${CLOSED_SHOWN}) x order by x.sent_at desc limit ${CLOSED_SHOWN}`,
    'k.sent_at desc',
  );
  const [count] = await app.read<{ open: number }>('select count(*) as open from packets where client_id = any($1) and closed_at is null', [
    clientIds,
  ]);
  const book = await loadCalendars(app.manager, app.clock.now(), new Set([...open, ...closed].map((row) => row.clientId)));
  const waiting = await awaitedOf(
    app.manager,
    open.map(({ id, policy, approverIds, goneIds }) => ({ id, policy, approver_ids: approverIds, gone_ids: goneIds })),
  );
  return {
    open: open.map((row) => packetShape(row, book, waiting.get(row.id) ?? [])),
    openCount: count?.open ?? 0,
    closed: closed.map((row) => packetShape(row, book, [])),
  };
}

type PacketRow = Omit<PacketShape, 'isPastDue' | 'waitedDays' | 'awaitedIds' | 'silenceFromOn'> & {
  policy: SignOffPolicy;
  approverIds: string[];
  goneIds: string[];
};

function packetShape({ policy, approverIds: _, goneIds: __, ...row }: PacketRow, book: CalendarBook, awaitedIds: string[]): PacketShape {
  const client = getDoer(book, clientKey(row.clientId));
  const sentOn = dayIn(row.sentAt, client.zone);
  const waits = row.closedAt === null && sentOn < client.todayOn;
  const waitedDays = waits ? countWorkingDays(client.calendar, addDays(sentOn, 1), client.todayOn) : 0;
  return {
    ...row,
    waitedDays,
    awaitedIds,
    isPastDue: row.closedAt === null && getDay(row.dueOn) < client.todayOn,
    silenceFromOn: silenceFrom({ policy, clientId: row.clientId, sentAt: row.sentAt }, book),
  };
}

/** How many remarks on the piece `p` are open, of those that a condition on `m` names. */
const openOf = (which: string): string =>
  `(select count(*) from remarks m where m.piece_id = p.id and m.state = 'open' and m.removed_at is null and ${which})`;

/** The pieces of a client that can go out for sign-off now, who approves, and when an answer is due. */
export async function readyFor(app: App, clientId: string): Promise<ReadyShape> {
  const candidates = await app.read<{
    id: string;
    number: number;
    title: string;
    round: number;
    open_remarks: number;
    open_team_remarks: number;
    picture_id: string | null;
  }>(
    `select p.id, p.number, p.title, p.round, ${firstPicture('p.content')} as picture_id, ${openOf('m.contact_id is not null')} as open_remarks, ${openOf('m.author_id is not null')} as open_team_remarks
     from pieces p where p.client_id = $1 and p.list is not null
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
    const { plan } = pieceState(source, book);
    const planned = plan?.steps.find((step) => step.id === open?.id);
    const [latest, answerOn] = [planned?.latestFinishOn ?? null, planned?.earliestFinishOn ?? null];
    return [
      {
        pieceId: piece.id,
        number: piece.number,
        title: piece.title,
        round: piece.round,
        pictureId: piece.picture_id,
        latestFinishOn: latest,
        answerOn,
        slips: latest !== null && answerOn !== null && answerOn > latest,
        earliestPublishOn: plan?.earliestPublishOn ?? null,
        openRemarks: piece.open_remarks,
        openTeamRemarks: piece.open_team_remarks,
        isVoided: isVoided(signOff),
      },
    ];
  });
  const [client] = await app.read<{ policy: SignOffPolicy }>('select policy from clients where id = $1', [clientId]);
  const approvers = await app.read<ContactShape>(
    'select id, name, email, can_ask as "canAsk", can_sign_off as "canSignOff" from contacts where client_id = $1 and can_sign_off and archived_at is null order by position, name',
    [clientId],
  );
  return {
    pieces,
    approvers,
    policy: client?.policy ?? { kind: 'any' },
    todayOn: getDoer(book, clientKey(clientId)).todayOn,
    suggestedDueOn: suggestedDue(pieces, book, clientId),
    answers: await answerForecast(app, book, clientId),
  };
}

/** Two working days of the client, unless the plan asks for an answer sooner or leaves more time; never before today. */
function suggestedDue(pieces: readonly ReadyPieceShape[], book: CalendarBook, clientId: string): Day {
  const client = getDoer(book, clientKey(clientId));
  const orToday = (day: ReturnType<typeof addWorkingDays>) => (day.ok ? day.value : client.todayOn); // a client may have no working days yet
  const usual = orToday(addWorkingDays(client.calendar, client.todayOn, 2));
  const planned = pieces.flatMap((piece) => (piece.latestFinishOn === null ? [] : [getDay(piece.latestFinishOn)])).sort()[0];
  return laterOf(planned ?? usual, orToday(workingDayOnOrAfter(client.calendar, client.todayOn)));
}
