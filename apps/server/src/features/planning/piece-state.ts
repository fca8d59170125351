import {
  compareInstants,
  contentSignOff,
  dayIn,
  getDay,
  getTimeOfDay,
  isAllSigned,
  isFree,
  isSigned,
  isVoided,
  pieceStage,
  placementState,
  planPiece,
  reckon,
  sendingOfPlacement,
  toInstantAfterGap,
  isByClient,
  CLIENT_KINDS,
  type Aim,
  type ContentSignOff,
  type Danger,
  type Day,
  type DecisionFact,
  type InstantText,
  type PartDigests,
  type PieceStage,
  type PlacementState,
  type Plan,
  type PlanInput,
  type PlannedStep,
  type PlanStep,
  type PublishSlot,
  type ReckoningList,
  type SendingState,
  type SignOffPolicy,
  type TimeOfDay,
  type StepKind,
} from '@zesting/core';
import type { WheelSegment } from '@zesting/contract';
import { rowsOf, type Reader } from '../../platform/database/rows.js';
import { decisionFacts, goneFrom, toAsked } from './sign-off-facts.js';
import { AGENCY_KEY, clientKey, getDoer, getPlanClient, type CalendarBook } from './calendars.js';

/** What the database holds of a piece, as far as its state follows from it. */
export interface PieceSource {
  id: string;
  client_id: string;
  wish_on: string | null;
  shelved: boolean;
  digests: PartDigests;
  policy: SignOffPolicy;
  approver_ids: string[];
  /** approvers of the packet who no longer sign off */
  gone_ids: string[];
  /** the round of the latest packet; 0 before the first */
  sent_round: number;
  in_packet: boolean;
  packet_due_on: string | null;
  last_outcome: 'approved' | 'changes' | null;
  sent: PartDigests[];
  decisions: DecisionFact[];
  steps: StepSource[];
  placements: PlacementSource[];
}

export interface StepSource {
  id: string;
  title: string;
  kind: StepKind;
  doer_id: string | null;
  span_days: number;
  same_day: boolean;
  predecessor_ids: string[];
  started_on: string | null;
  finished_on: string | null;
  /** a latest finish set by hand */
  pinned_finish_on: string | null;
  /** stored by the prediction of load; null where none is made yet, or work can never end */
  predicted_finish_on: string | null;
  /** something stands in its way */
  obstructed: boolean;
  /** by when the client was asked to bring it; null where nobody has asked */
  asked_due_on: string | null;
}

interface PlacementSource {
  id: string;
  channel_id: string;
  publish_at: string | null;
  out: boolean;
  cancelled: boolean;
  lead_days: number;
  at_time: string | null;
  /** the channel's; null: the client's */
  usual_time: string | null;
  /** so many minutes late it may still go out by itself; null: somebody posts it */
  late_minutes: number | null;
  /** of its latest way to the channel at that time */
  sending: SendingState | null;
}

/** All that follows from a piece's source at one moment. */
export interface PieceState {
  readonly id: string;
  readonly plan: Plan | null;
  readonly stage: PieceStage;
  readonly list: ReckoningList | null;
  readonly aimOn: string | null;
  readonly aimAt: string | null;
  readonly danger: Danger | null;
  readonly slackDays: number | null;
  readonly lateFromOn: string | null;
  readonly earliestPublishOn: string | null;
  readonly packetDueOn: string | null;
  readonly wheel: readonly WheelSegment[];
  readonly signOff: ContentSignOff;
  readonly placements: Readonly<Record<string, PlacementState>>;
  readonly atHand: ReadonlySet<string>;
}

/** SQL: whether something stands in the way of an open step, or of its whole piece. */
const isObstructed = (step: string): string =>
  `(${step}.finished_on is null and exists (select 1 from obstacles o where o.piece_id = ${step}.piece_id and o.settled_at is null and (o.step_id is null or o.step_id = ${step}.id)))`;

/** Reads the sources of many pieces with one query. A piece without a packet goes by the client's policy of today. */
export function loadSources(tx: Reader, pieceIds: readonly string[]): Promise<PieceSource[]> {
  return rowsOf<PieceSource>(
    tx,
    `select p.id, p.client_id, p.wish_on, p.shelved, p.digests,
       coalesce(k.policy, c.policy) as policy,
       to_jsonb(coalesce(k.approver_ids, array(select x.id from contacts x where x.client_id = c.id and x.can_sign_off and x.archived_at is null order by x.position, x.id))) as approver_ids,
       ${goneFrom('k.approver_ids')} as gone_ids, coalesce(k.round, 0) as sent_round,
       exists (select 1 from packet_items i where i.piece_id = p.id and i.outcome is null) as in_packet,
       (select o.due_on from packet_items i join packets o on o.id = i.packet_id where i.piece_id = p.id and i.outcome is null) as packet_due_on,
       k.outcome as last_outcome,
       coalesce((select jsonb_agg(v.digests order by v.number) from packet_items i join versions v on v.id = i.version_id where i.piece_id = p.id), '[]') as sent,
       ${decisionFacts('p.id')} as decisions,
       coalesce((select jsonb_agg(jsonb_build_object('id', s.id, 'title', s.title, 'kind', s.kind, 'doer_id', (select d.id from people d where d.id = s.doer_id and d.active), 'span_days', s.span_days,
           'same_day', s.same_day, 'predecessor_ids', s.predecessor_ids, 'started_on', s.started_on, 'finished_on', s.finished_on, 'pinned_finish_on', s.pinned_finish_on, 'predicted_finish_on', s.predicted_finish_on,
           'obstructed', ${isObstructed('s')}, 'asked_due_on', y.due_on) order by s.position)
         from steps s left join deliveries y on y.step_id = s.id where s.piece_id = p.id), '[]') as steps,
       coalesce((select jsonb_agg(jsonb_build_object('id', l.id, 'channel_id', l.channel_id, 'publish_at', to_char(l.publish_at, 'YYYY-MM-DD"T"HH24:MI:SS"Z"'),
           'out', l.out_at is not null, 'cancelled', l.cancelled, 'lead_days', h.lead_days,
           'at_time', to_char(l.at_time, 'HH24:MI'), 'usual_time', to_char(h.usual_time, 'HH24:MI'), 'late_minutes', n.late_minutes,
           'sending', (select g.state from sendings g where g.placement_id = l.id and g.publish_at = l.publish_at order by g.claimed_at desc limit 1)) order by l.publish_at, l.id)
         from placements l join channels h on h.id = l.channel_id left join channel_links n on n.channel_id = h.id where l.piece_id = p.id), '[]') as placements
     from pieces p join clients c on c.id = p.client_id
     left join lateral (select o.policy, o.approver_ids, i.outcome, i.round from packet_items i join packets o on o.id = i.packet_id
       where i.piece_id = p.id order by o.sent_at desc, o.id limit 1) k on true
     where p.id = any($1) order by p.id`,
    [pieceIds],
  );
}

/** The calendar key of who does a step. */
export const doerKey = (step: Pick<StepSource, 'kind' | 'doer_id'>, clientId: string): string =>
  isByClient(step.kind) ? clientKey(clientId) : (step.doer_id ?? AGENCY_KEY);

export const toPlanStep = (step: StepSource, clientId: string): PlanStep => ({
  id: step.id,
  doer: doerKey(step, clientId),
  spanDays: step.span_days,
  sameDay: step.same_day,
  predecessorIds: step.predecessor_ids,
  startedOn: step.started_on === null ? null : getDay(step.started_on),
  finishedOn: step.finished_on === null ? null : getDay(step.finished_on),
  pinnedFinishOn: step.pinned_finish_on === null ? null : getDay(step.pinned_finish_on),
  predictedFinishOn: step.predicted_finish_on === null ? null : getDay(step.predicted_finish_on),
});

interface PieceAim {
  /** the aim date, in the client's zone */
  readonly on: string;
  /** the first instant at which it is to go out */
  readonly at: InstantText;
  readonly aims: readonly Aim[];
}

/** When the channels of the placements publish: the placement's own time where it has one, else the channel's usual, else the client's. */
function slotsOf(placements: readonly PlacementSource[], usual: TimeOfDay): PublishSlot[] {
  if (placements.length === 0) return [{ at: usual, leadDays: 0 }];
  return placements.map(({ at_time, usual_time, lead_days }) => ({
    at: (at_time ?? usual_time) ? getTimeOfDay(at_time ?? usual_time ?? '') : usual,
    leadDays: lead_days,
  }));
}

/** The aim date: the earliest placement not yet out, else the wish date, else none. Every placement that is not out counts with its lead. */
function aimOf(source: PieceSource, live: readonly PlacementSource[], slots: readonly PublishSlot[], zone: string): PieceAim | null {
  const dated = live.flatMap(({ publish_at: publishAt, lead_days: leadDays }) => (publishAt === null ? [] : [{ publishAt, leadDays }]));
  const isOut = live.length === 0 && source.placements.some((placement) => placement.out);
  const wishOn = source.wish_on === null || isOut ? null : getDay(source.wish_on);
  const wished = wishOn === null ? [] : slots.map(({ at, leadDays }) => ({ publishAt: toInstantAfterGap(wishOn, at, zone), leadDays }));
  const aims = dated.length > 0 ? dated : wished;
  const [first] = aims.map(({ publishAt }) => publishAt).sort(compareInstants);
  return first === undefined ? null : { on: dated.length > 0 ? dayIn(first, zone) : (wishOn ?? ''), at: first, aims };
}

/** How the content as it stands is signed. */
export const signOffOf = (source: PieceSource): ContentSignOff =>
  contentSignOff({ ...toAsked(source, source.sent_round), decisions: source.decisions, sent: source.sent }, source.digests);

/** What a piece is planned by, beside its steps and those who do them. */
export function planInputOf(source: PieceSource, book: CalendarBook) {
  const client = getPlanClient(book, source.client_id);
  const live = source.placements.filter((placement) => !placement.cancelled && !placement.out);
  const slots = slotsOf(live, client.usualTime);
  const aim = aimOf(source, live, slots, client.zone);
  const plan: Omit<PlanInput, 'steps' | 'doers'> = {
    aims: aim?.aims ?? [],
    publishZone: client.zone,
    todayOn: client.todayOn,
    slots,
    tightDays: book.tightDays,
  };
  return { client, aim, plan };
}

/** Works out everything that follows from a piece's source: plan, stage, the desk's list, the wheel. No I/O. */
export function pieceState(source: PieceSource, book: CalendarBook): PieceState {
  const { client, aim, plan: input } = planInputOf(source, book);
  const planned = planPiece({ ...input, doers: book.doers, steps: source.steps.map((step) => toPlanStep(step, source.client_id)) });
  const plan = planned.ok ? planned.value : null;
  const steps = new Map(plan?.steps.map((step) => [step.id, step]));
  const signOff = signOffOf(source);
  const atHand = stepsAtHand(source.steps);
  const danger = plan ? plan.danger : 'out_of_reach';
  const placements = Object.fromEntries(
    source.placements.map((placement) => [
      placement.id,
      placementState({
        publishAt: placement.publish_at,
        out: placement.out,
        cancelled: placement.cancelled,
        signed: isSigned(signOff, placement.channel_id),
        passed: placement.publish_at !== null && compareInstants(placement.publish_at, book.now) <= 0,
        inReach: mayStillGo(placement, book.now),
        sending: sendingOfPlacement(placement.sending),
      }),
    ]),
  );
  const awaited = source.steps.filter((step) => step.kind === 'deliver' && atHand.has(step.id));
  const isMade = source.steps.every((step) => step.kind === 'sign_off' || step.finished_on !== null);
  const facts = {
    shelved: source.shelved,
    placements: Object.values(placements),
    signed: isAllSigned(signOff),
    voided: isVoided(signOff),
    inPacket: source.in_packet,
    returned: !source.in_packet && source.last_outcome === 'changes' && !isMade,
    toBeSent: isMade && !source.in_packet && !isAllSigned(signOff),
    packetDueOn: source.packet_due_on === null ? null : getDay(source.packet_due_on),
    clientTodayOn: client.todayOn,
    stepBegun: source.steps.some((step) => step.started_on !== null),
    checkAtHand: source.steps.some((step) => step.kind === 'check' && atHand.has(step.id)),
    noDoer: source.steps.some((step) => !isByClient(step.kind) && step.doer_id === null && atHand.has(step.id)),
    toBeAsked: awaited.some((step) => step.asked_due_on === null),
    materialDueOn: earliestOf(awaited),
    dated: aim !== null,
    danger,
  };
  const list = reckon(facts);
  return {
    id: source.id,
    plan,
    stage: pieceStage(facts),
    list,
    aimOn: aim?.on ?? null,
    aimAt: aim?.at ?? null,
    danger,
    slackDays: plan?.slackDays ?? null,
    lateFromOn: lateFrom(source.steps, steps),
    earliestPublishOn: list === null ? null : (plan?.earliestPublishOn ?? null),
    packetDueOn: source.packet_due_on,
    wheel: source.steps.map((step) => segment(step, steps.get(step.id), atHand, getDoer(book, doerKey(step, source.client_id)).todayOn)),
    signOff,
    placements,
    atHand,
  };
}

/** Whether it goes out by itself, and is not later than that allows. */
const mayStillGo = ({ publish_at: at, late_minutes: minutes }: PlacementSource, now: InstantText): boolean =>
  at !== null && minutes !== null && Date.parse(at) + minutes * 60_000 > Date.parse(now);

/** The first day by which the client was asked to bring something. */
function earliestOf(awaited: readonly StepSource[]): Day | null {
  const [first] = awaited.flatMap(({ asked_due_on: dueOn }) => dueOn ?? []).sort();
  return first === undefined ? null : getDay(first);
}

/** SQL: whether all steps before one are finished. */
export const isFreeStep = (step: string): string =>
  `not exists (select 1 from steps b where b.id = any(${step}.predecessor_ids) and b.finished_on is null)`;

/** SQL: whether the client does a step. */
export const isClientsStep = (step: string): string => `${step}.kind in (${CLIENT_KINDS.map((kind) => `'${kind}'`).join(', ')})`;

/** Open steps whose predecessors are all finished. */
export function stepsAtHand(steps: readonly StepSource[]): Set<string> {
  const finished = new Set(steps.filter((step) => step.finished_on !== null).map((step) => step.id));
  return new Set(steps.filter((step) => step.finished_on === null && isFree(step.predecessor_ids, finished)).map((step) => step.id));
}

/** The first date that is lost if nothing is done: a latest start where work has not begun, else a latest finish. */
function lateFrom(steps: readonly StepSource[], planned: ReadonlyMap<string, PlannedStep>): string | null {
  const dates = steps.flatMap((step) => {
    const dates = planned.get(step.id);
    const on = step.finished_on !== null ? null : step.started_on === null ? dates?.latestStartOn : dates?.latestFinishOn;
    return on ? [on] : [];
  });
  return dates.sort()[0] ?? null;
}

function segment(step: StepSource, planned: PlannedStep | undefined, atHand: ReadonlySet<string>, todayOn: string): WheelSegment {
  const lateDays = planned?.slackDays !== null && planned && planned.slackDays < 0 && atHand.has(step.id) ? -planned.slackDays : 0;
  const isLate = lateDays > 0 && planned?.latestFinishOn !== null && (planned?.latestFinishOn ?? '') < todayOn;
  const { title } = step;
  if (step.finished_on !== null) return { title, state: 'done', lateDays: 0 };
  const stands = step.obstructed ? ({ obstacle: true } as const) : {};
  if (isLate) return { title, state: 'late', lateDays, ...stands };
  if (!atHand.has(step.id)) return { title, state: 'waiting', lateDays: 0, ...stands };
  const isBlocked = step.obstructed || (!isByClient(step.kind) && step.doer_id === null);
  return { title, state: isBlocked ? 'blocked' : 'current', lateDays: 0, ...stands };
}
