import {
  addDays,
  type ChannelRules,
  daysBetween,
  isWorkingDay,
  weekdayOf,
  fieldsOf,
  isAgencyOnly,
  isField,
  isByClient,
  type Content,
  type CopyLanguage,
  type FormatText,
  writtenTexts,
  type PlannedStep,
} from '@zesting/core';
import type {
  ActivityShape,
  BriefRequestShape,
  BriefShape,
  ChannelLooksShape,
  ChecklistLineShape,
  ContentShape,
  DecisionShape,
  OutlineHeadingBody,
  PieceShape,
  PlacementShape,
  StepShape,
  UploadShape,
} from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import {
  doerKey,
  getDoer,
  isClientsStep,
  loadCalendars,
  loadSources,
  pieceState,
  signOffOf,
  stepsAsOf,
  type CalendarBook,
  type PieceSource,
  type PieceState,
} from '../../planning/index.js';
import { leadOf } from '../../notices/index.js';
import { channelLooks, channelRules } from './channel-rules.js';
import { fileFacts, mediumShape, partShape } from './media-out.js';
import { PLACEMENT_COLUMNS } from './placement-columns.js';
import { UPLOAD_COLUMNS } from './uploads.js';

interface PieceColumns {
  id: string;
  number: number;
  client_id: string;
  title: string;
  notes: string;
  format_name: string;
  format_texts: FormatText[];
  format_outline: OutlineHeadingBody[];
  format_lays_out: boolean;
  client_language: CopyLanguage;
  pillar_id: string | null;
  purpose: PieceShape['purpose'];
  lead_id: string | null;
  lead: PieceShape['lead'];
  campaign_id: string | null;
  pillars: { id: string; name: string; colour: number }[];
  wish_on: string | null;
  shelved: boolean;
  round: number;
  rounds_agreed: number;
  left_out: PieceShape['leftOut'];
  agency_decider: PieceShape['agencyDecider'];
  refers_to: PieceShape['refersTo'];
  used_in: PieceShape['usedIn'];
  content: Content;
  content_version: number;
  version: number;
}

interface StepColumns {
  id: string;
  title: string;
  kind: StepShape['kind'];
  skill: string;
  doer_id: string | null;
  with_id: string | null;
  with_name: string | null;
  doer_name: string | null;
  span_days: number;
  effort_minutes: number;
  left_minutes: number;
  predicted_start_on: string | null;
  predicted_finish_on: string | null;
  behind_steps: number;
  same_day: boolean;
  round: number;
  started_on: string | null;
  finished_on: string | null;
  remark: string | null;
  checklist: ChecklistLineShape[];
  predecessor_ids: string[];
  pinned_finish_on: string | null;
  optional: boolean;
  version: number;
  is_offered: boolean;
}

/** The whole of one piece: content, brief, path with its dates and reasons, placements, decisions, activity. */
export async function getPiece(app: App, viewer: Viewer, pieceId: string): Promise<PieceShape> {
  const [row] = await app.read<PieceColumns>(
    `select p.*, f.name as format_name, f.texts as format_texts, f.outline as format_outline, f.is_laid_out as format_lays_out, c.language as client_language, (select g.campaign_id from campaign_pieces g where g.piece_id = p.id) as campaign_id, coalesce(t.rounds_allowed, c.rounds_agreed) as rounds_agreed,
       coalesce((select jsonb_agg(jsonb_build_object('key', e.step ->> 'key', 'title', e.step ->> 'title') order by e.at) from jsonb_array_elements(${stepsAsOf('t', 'p.route_version')}) with ordinality e (step, at)
         where e.step ->> 'kind' <> 'sign_off' and not exists (select 1 from steps s where s.piece_id = p.id and s.key = e.step ->> 'key')), '[]') as left_out,
       (select jsonb_build_object('personId', w.id, 'name', w.name) from people w where w.id = ${leadOf('p')}) as lead,
       (select jsonb_build_object('personId', d.id, 'name', d.name) from people d where c.policy ->> 'kind' = 'agency' and d.id::text = c.policy ->> 'personId') as agency_decider,
       coalesce((select jsonb_agg(jsonb_build_object('id', o.id, 'number', o.number, 'title', o.title) order by o.number) from piece_references r join pieces o on o.id = r.of_piece_id where r.piece_id = p.id
         and not exists (select 1 from spin_offs s where s.piece_id = p.id and s.source_id = o.id)), '[]') as refers_to,
       coalesce((select jsonb_agg(jsonb_build_object('id', o.id, 'number', o.number, 'title', o.title) order by o.number) from piece_references r join pieces o on o.id = r.piece_id where r.of_piece_id = p.id
         and not exists (select 1 from spin_offs s where s.piece_id = o.id and s.source_id = p.id)), '[]') as used_in,
       coalesce((select jsonb_agg(jsonb_build_object('id', l.id, 'name', l.name, 'colour', l.colour) order by l.position) from pillars l where l.client_id = p.client_id and (l.archived_at is null or l.id = p.pillar_id)), '[]') as pillars
     from pieces p join formats f on f.id = p.format_id join clients c on c.id = p.client_id join routes t on t.id = p.route_id where p.id = $1`,
    [pieceId],
  );
  const book = await loadCalendars(app.manager, app.clock.now());
  const [source] = await loadSources(app.manager, [pieceId]);
  if (!row || !source) throw new Error('the piece went away');
  const state = pieceState(source, book);
  const manages = viewer.role === 'lead' || viewer.role === 'manager';
  const steps = await stepShapes(app, viewer, source, state, book);
  return {
    id: row.id,
    number: row.number,
    clientId: row.client_id,
    title: row.title,
    formatName: row.format_name,
    pillarId: row.pillar_id,
    purpose: row.purpose,
    leadId: row.lead_id,
    lead: row.lead,
    campaignId: row.campaign_id,
    pillars: row.pillars,
    stage: state.stage,
    list: state.list,
    wishOn: row.wish_on,
    aimOn: state.aimOn,
    danger: state.danger,
    slackDays: state.slackDays,
    earliestPublishOn: state.earliestPublishOn,
    round: row.round,
    roundsAgreed: row.rounds_agreed,
    shelved: row.shelved,
    wheel: [...state.wheel],
    brief: await briefOf(app, viewer, row),
    content: await contentShape(app, row, source),
    steps,
    leftOut: manages ? row.left_out : [],
    placements: await placementsOf(app, pieceId, state),
    decisions: await decisionsOf(app, pieceId),
    agencyDecider: row.agency_decider,
    refersTo: manages ? row.refers_to : [],
    usedIn: manages ? row.used_in : [],
    activity: manages ? await activityOf(app, pieceId) : [],
    canManage: manages,
    canWrite: manages || steps.some((step) => step.doerId === viewer.personId),
    version: row.version,
  };
}

/** In SQL: the checklist of a step `s`, line by line, with who ticked it. */
const CHECKLIST = `coalesce((select jsonb_agg(jsonb_build_object('text', line.text,
    'tick', case when k.step_id is null then null else jsonb_build_object('by', w.name, 'at', k.at) end) order by line.place)
  from unnest(s.checklist) with ordinality line (text, place) left join step_ticks k on k.step_id = s.id and k.position = line.place - 1
  left join people w on w.id = k.person_id), '[]')`;

async function stepShapes(app: App, viewer: Viewer, source: PieceSource, state: PieceState, book: CalendarBook): Promise<StepShape[]> {
  const rows = await app.read<StepColumns>(
    `select s.id, s.title, s.kind, s.skill, s.doer_id, case when ${isClientsStep('s')} then 'the client' else d.name end as doer_name, w.id as with_id, w.name as with_name, s.span_days,
       s.effort_minutes, coalesce(s.remaining_minutes, s.effort_minutes) as left_minutes, s.predicted_start_on, s.predicted_finish_on, s.behind_steps, s.same_day, s.round, s.started_on, s.finished_on, s.remark, s.predecessor_ids, s.pinned_finish_on, s.optional, s.version, ${CHECKLIST} as checklist,
       coalesce(d.role = 'freelance', false) and s.accepted_on is null and s.started_on is null and s.finished_on is null as is_offered
     from steps s left join people d on d.id = s.doer_id left join people w on w.id = s.with_id and (w.left_at is null or s.finished_on is not null) where s.piece_id = $1 order by s.position`,
    [source.id],
  );
  const planned = new Map(state.plan?.steps.map((step) => [step.id, step]));
  const manages = viewer.role === 'lead' || viewer.role === 'manager';
  return rows.map((row) => {
    const dates = planned.get(row.id);
    const calendar = getDoer(book, doerKey(row, source.client_id));
    const today = calendar.todayOn;
    return {
      id: row.id,
      title: row.title,
      kind: row.kind,
      skill: row.skill,
      doerId: row.doer_id,
      doerName: row.doer_name,
      withId: row.with_id,
      withName: row.with_name,
      spanDays: row.span_days,
      effortMinutes: row.effort_minutes,
      leftMinutes: row.left_minutes,
      sameDay: row.same_day,
      round: row.round,
      startedOn: row.started_on,
      finishedOn: row.finished_on,
      latestStartOn: dates?.latestStartOn ?? null,
      latestFinishOn: dates?.latestFinishOn ?? null,
      latestHeldBy: dates?.latestHeldBy ?? null,
      earliestStartOn: dates?.earliestStartOn ?? today,
      earliestFinishOn: dates?.earliestFinishOn ?? today,
      earliestHeldBy: dates?.earliestHeldBy ?? { by: 'today' },
      slackDays: dates?.slackDays ?? null,
      predictedStartOn: row.predicted_start_on,
      predictedFinishOn: row.predicted_finish_on,
      // how much others have to do is for managers
      behindSteps: manages || row.doer_id === viewer.personId ? row.behind_steps : 0,
      danger: dates?.danger ?? null,
      critical: dates?.critical ?? false,
      atHand: state.atHand.has(row.id),
      daysOff: dates ? daysOff(dates, calendar.calendar) : [],
      isOffered: manages && row.is_offered,
      remark: row.remark,
      checklist: row.checklist,
      mine: state.atHand.has(row.id) && !isByClient(row.kind) && (row.doer_id === viewer.personId || manages),
      predecessorIds: row.predecessor_ids,
      pinnedFinishOn: row.pinned_finish_on,
      conflict: dates?.conflict ?? null,
      optional: row.optional,
      version: row.version,
    };
  });
}

/** Weekdays within the step's latest dates, and up to a week behind them, on which the doer does not work: why the dates lie where they do. */
function daysOff(step: PlannedStep, calendar: Parameters<typeof isWorkingDay>[0]): string[] {
  if (step.latestStartOn === null || step.latestFinishOn === null) return [];
  const length = daysBetween(step.latestStartOn, step.latestFinishOn);
  const days: string[] = [];
  for (let offset = 0; offset <= length + 7; offset++) {
    const day = addDays(step.latestStartOn, offset);
    if (isWorkingDay(calendar, day)) {
      if (offset > length) break; // the gap behind the finish ends with the next day worked
    } else if (weekdayOf(day) <= 5) days.push(day);
  }
  return days;
}

/** The requests behind a piece, oldest first. Freelancers see no answer that is for the agency only. */
async function briefOf(app: App, viewer: Viewer, row: PieceColumns): Promise<BriefShape> {
  const requests = await app.read<Omit<BriefRequestShape, 'files'>>(
    `select r.id, r.number, r.title, r.requester_name as "requesterName", r.items, r.answers,
       coalesce((select jsonb_agg(jsonb_build_object('id', t.id, 'author', t.author, 'name', t.name, 'text', t.text, 'at', t.at) order by t.at, t.id)
         from request_messages t where t.request_id = r.id), '[]') as messages
     from piece_requests b join requests r on r.id = b.request_id where b.piece_id = $1 order by r.received_at, r.id`,
    [row.id],
  );
  const ideaFiles = await app.read<UploadShape>(
    `select ${UPLOAD_COLUMNS} from assets where idea_id in (select i.id from ideas i where i.piece_id = $1
       union select o.id from ideas i join ideas o on o.combined_into = i.id where i.piece_id = $1) order by created_at, id`,
    [row.id],
  );
  return { requests: await Promise.all(requests.map((request) => withFiles(app, viewer, request))), notes: row.notes, ideaFiles };
}

async function withFiles(app: App, viewer: Viewer, request: Omit<BriefRequestShape, 'files'>): Promise<BriefRequestShape> {
  const items = request.items.filter((item) => viewer.role !== 'freelance' || !isField(item) || !isAgencyOnly(item));
  const fields = fieldsOf(items);
  const keys = new Set(fields.map((field) => field.key));
  const answers = Object.fromEntries(Object.entries(request.answers).filter(([key]) => keys.has(key)));
  const shown = fields.filter((field) => field.kind === 'files').flatMap((field) => answers[field.key] ?? []);
  const files = await app.read<UploadShape>(
    `select ${UPLOAD_COLUMNS} from assets where request_id = $1 and id::text = any($2) order by created_at, id`,
    [request.id, shown],
  );
  return { ...request, items, answers, files };
}

interface ChannelRow {
  channelId: string;
  name: string;
  kind: string;
  rules: ChannelRules;
  looks: ChannelLooksShape;
}

async function contentShape(app: App, row: PieceColumns, source: PieceSource): Promise<ContentShape> {
  const signOff = signOffOf(source);
  const files = await fileFacts(
    app,
    row.content.shared.media.map((medium) => medium.assetId),
  );
  const channels = await app.read<ChannelRow>(
    `select h.id as "channelId", h.name, h.kind, ${channelRules('h')} as rules, ${channelLooks('h')} as looks
     from channels h where h.id = any($1) order by h.position`,
    [Object.keys(row.content.channels)],
  );
  return {
    version: row.content_version,
    shared: {
      copy: row.content.shared.copy,
      disclosure: row.content.shared.disclosure,
      isLaidOut: row.content.shared.isLaidOut === true,
      texts: writtenTexts(row.format_texts, row.content.shared.texts).map((text) => ({
        ...text,
        isSlides: text.isSlides === true,
        others: [...(row.content.shared.others?.[text.key] ?? [])],
      })),
      state: signOff.shared,
      media: row.content.shared.media.map((medium) => mediumShape(medium, files)),
    },
    laysOut: row.format_lays_out,
    language: row.client_language,
    canAskAid: app.config.writingAid !== null,
    outline: row.format_outline,
    channels: channels.flatMap((channel) => {
      const part = row.content.channels[channel.channelId];
      if (!part) return [];
      return [{ ...channel, ...partShape(part), state: signOff.channels[channel.channelId] ?? 'open' }];
    }),
  };
}

async function placementsOf(app: App, pieceId: string, state: PieceState): Promise<PlacementShape[]> {
  const rows = await app.read<PlacementShape>(
    `select ${PLACEMENT_COLUMNS}
     from placements l join channels h on h.id = l.channel_id join pieces p on p.id = l.piece_id left join versions v on v.id = l.out_version_id where l.piece_id = $1 order by h.position, l.created_at`,
    [pieceId],
  );
  return rows.map((row) => ({ ...row, state: state.placements[row.id] ?? row.state }));
}

const decisionsOf = (app: App, pieceId: string): Promise<DecisionShape[]> =>
  app.read<DecisionShape>(
    `select coalesce(x.name, r.name) as "contactName", d.verdict, d.remark, d.decided_at as "decidedAt", coalesce(i.round, 1) as round,
       v.number as "versionNumber", r.name as "recordedBy", d.how
     from decisions d left join contacts x on x.id = d.contact_id join versions v on v.id = d.version_id left join people r on r.id = d.recorded_by
     left join packet_items i on i.packet_id = d.packet_id and i.piece_id = d.piece_id where d.piece_id = $1 order by d.sequence`,
    [pieceId],
  );

const activityOf = (app: App, pieceId: string): Promise<ActivityShape[]> =>
  app.read<ActivityShape>(
    'select thing, thing_id as "thingId", verb, actor, at, detail from activities where thing = \'piece\' and thing_id = $1 order by id desc limit 100',
    [pieceId],
  );
