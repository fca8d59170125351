import { ok, type InstantText } from '@zesting/core';
import type { App } from '../../platform/app.js';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { addJob } from '../../platform/jobs/jobs.js';
import { tellClients } from '../../platform/live/live.js';
import { loadCalendars } from './calendars.js';
import { loadSources, pieceState, type PieceState } from './piece-state.js';
/** The task that predicts load anew once a transaction is through; one at a time waits. */
export const PREDICT = 'planning_predict';

/** Works out pieces anew from what is stored, without storing. */
export async function computeStates(tx: Tx, pieceIds: readonly string[], now: InstantText): Promise<PieceState[]> {
  if (pieceIds.length === 0) return [];
  const book = await loadCalendars(tx, now);
  return (await loadSources(tx, pieceIds)).map((source) => pieceState(source, book));
}

/**
 * Plans pieces anew and stores what lists are made of: stage, list, latest and earliest dates, slack, danger, placement states. Called in the
 * transaction of every change to a piece, so that whoever looks next sees it; and asks for a new prediction of load, which other pieces may
 * feel too, by a job.
 */
export async function replan(tx: Tx, pieceIds: readonly string[], now: InstantText): Promise<PieceState[]> {
  const states = await replanPieces(tx, pieceIds, now);
  if (states.length > 0) await wantPrediction(tx, pieceIds);
  return states;
}

/** Asks for a prediction of what changes of these pieces can reach; without any, of the whole agency. One at a time waits. */
async function wantPrediction(tx: Tx, pieceIds?: readonly string[]): Promise<void> {
  if (pieceIds) await tx.query('insert into predictions_wanted (piece_id) select unnest($1::uuid[])', [pieceIds]);
  else await tx.query('insert into predictions_wanted default values');
  await addJob(tx, PREDICT, {}, { key: PREDICT, queue: 'planning' });
}

/** Asks for a prediction of what persons have to do, whose hours changed. */
export async function wantPredictionOf(tx: Tx, personIds: readonly string[]): Promise<void> {
  if (personIds.length === 0) return;
  await tx.query('insert into predictions_wanted (person_id) select unnest($1::uuid[])', [personIds]);
  await addJob(tx, PREDICT, {}, { key: PREDICT, queue: 'planning' });
}

/** As `replan`, by predictions as they are stored. Only what differs is written. */
export async function replanPieces(tx: Tx, pieceIds: readonly string[], now: InstantText): Promise<PieceState[]> {
  const states = await computeStates(tx, pieceIds, now);
  if (states.length === 0) return [];
  await tx.query(
    `update pieces p set stage = n.stage, list = n.list, aim_on = n.aim_on, aim_at = n.aim_at, danger = n.danger, slack_days = n.slack_days,
       late_from_on = n.late_from_on, earliest_publish_on = n.earliest_publish_on, packet_due_on = n.packet_due_on, progress = n.progress,
       revision = p.revision + 1, planned_at = $2
     from jsonb_to_recordset($1) as n(id uuid, stage text, list text, aim_on date, aim_at timestamptz, danger text, slack_days int,
       late_from_on date, earliest_publish_on date, packet_due_on date, progress jsonb)
     where p.id = n.id and (p.revision = 0 or (p.stage, p.list, p.aim_on, p.aim_at, p.danger, p.slack_days, p.late_from_on, p.earliest_publish_on,
       p.packet_due_on, p.progress) is distinct from (n.stage, n.list, n.aim_on, n.aim_at, n.danger, n.slack_days, n.late_from_on,
       n.earliest_publish_on, n.packet_due_on, n.progress))`,
    [JSON.stringify(states.map(storedPiece)), now],
  );
  await tx.query(
    `update steps s set latest_start_on = n.latest_start_on, latest_finish_on = n.latest_finish_on, earliest_start_on = n.earliest_start_on,
       earliest_finish_on = n.earliest_finish_on, slack_days = n.slack_days, danger = n.danger
     from jsonb_to_recordset($1) as n(id uuid, latest_start_on date, latest_finish_on date, earliest_start_on date, earliest_finish_on date,
       slack_days int, danger text)
     where s.id = n.id and (s.latest_start_on, s.latest_finish_on, s.earliest_start_on, s.earliest_finish_on, s.slack_days, s.danger)
       is distinct from (n.latest_start_on, n.latest_finish_on, n.earliest_start_on, n.earliest_finish_on, n.slack_days, n.danger)`,
    [JSON.stringify(states.flatMap(storedSteps))],
  );
  await tx.query(
    'update placements l set state = n.state from jsonb_to_recordset($1) as n(id uuid, state text) where l.id = n.id and l.state <> n.state',
    [JSON.stringify(states.flatMap((state) => Object.entries(state.placements).map(([id, value]) => ({ id, state: value }))))],
  );
  return states;
}

/** The stored columns of a piece, as the full recompute must find them. */
export const storedPiece = (state: PieceState) => ({
  id: state.id,
  stage: state.stage,
  list: state.list,
  aim_on: state.aimOn,
  aim_at: state.aimAt,
  danger: state.danger,
  slack_days: state.slackDays,
  late_from_on: state.lateFromOn,
  earliest_publish_on: state.earliestPublishOn,
  packet_due_on: state.packetDueOn,
  progress: state.wheel,
});

/** The stored columns of a piece's steps. */
export const storedSteps = (state: PieceState) =>
  (state.plan?.steps ?? []).map((step) => ({
    id: step.id,
    latest_start_on: step.latestStartOn,
    latest_finish_on: step.latestFinishOn,
    earliest_start_on: step.earliestStartOn,
    earliest_finish_on: step.earliestFinishOn,
    slack_days: step.slackDays,
    danger: step.danger,
  }));

/** The task that plans everything open anew, a batch at a time. */
export const REPLAN = 'planning_replan_open';

/** Asks for everything open to be planned anew, soon and by a job. */
export const replanSoon = (tx: Tx): Promise<void> => addJob(tx, REPLAN, {}, { key: REPLAN, queue: 'planning' });

const BATCH = 200;

/** Plans every open piece anew in the caller's transaction: for loading the demo and for proofs. Returns how many. */
export async function replanOpen(tx: Tx, now: InstantText): Promise<number> {
  const open = await rowsOf<{ id: string }>(
    tx,
    'select id from pieces where list is not null or revision = 0 order by id for no key update',
  );
  for (let from = 0; from < open.length; from += BATCH) {
    await replan(
      tx,
      open.slice(from, from + BATCH).map((row) => row.id),
      now,
    );
  }
  return open.length;
}

/** So many pieces are locked at a time while the clock's changes are stored: whoever edits one of them waits for no more. */
const SMALL_BATCH = 50;

/**
 * Plans every open piece anew, a batch and a commit at a time: after midnight somewhere, a day off, a changed calendar. Tells those who may
 * see the clients of what changed, and asks for a new prediction.
 * @returns how many pieces differed from what was stored
 */
export async function replanOpenApart(app: App): Promise<number> {
  const [agency] = await app.read('select 1 from agencies');
  if (!agency) return 0;
  let [last, count]: [string | null, number] = [null, 0];
  for (;;) {
    const done = await app.write<{ last: string | null; changed: number }, never>(async (tx, now) => {
      const open = await rowsOf<{ id: string; revision: number }>(
        tx,
        `select id, revision from pieces where (list is not null or revision = 0) and ($1::uuid is null or id > $1) order by id limit $2 for no key update`,
        [last, SMALL_BATCH],
      );
      const ids = open.map((row) => row.id);
      await replanPieces(tx, ids, now);
      const changed = await rowsOf<{ id: string }>(
        tx,
        'select p.id from pieces p join unnest($1::uuid[], $2::int[]) o (id, revision) on o.id = p.id where p.revision <> o.revision',
        [ids, open.map((row) => row.revision)],
      );
      if (changed.length > 0)
        await tellClients(
          tx,
          changed.map((row) => row.id),
          'dates',
        );
      return ok({ last: ids.at(-1) ?? null, changed: changed.length });
    });
    if (!done.ok || done.value.last === null) break;
    last = done.value.last;
    count += done.value.changed;
  }
  await app.write(async (tx) => ok(await wantPrediction(tx)));
  return count;
}

/** Plans the open pieces that a changed calendar touches: those of a client, or those with an open step of a person. */
export async function replanWhere(
  tx: Tx,
  of: { readonly clientId: string } | { readonly personId: string },
  now: InstantText,
): Promise<void> {
  const open =
    'clientId' in of
      ? await rowsOf<{ id: string }>(tx, 'select id from pieces where client_id = $1 and list is not null order by id for no key update', [
          of.clientId,
        ])
      : await rowsOf<{ id: string }>(
          tx,
          `select id from pieces where list is not null and exists (select 1 from steps s where s.piece_id = pieces.id and s.doer_id = $1 and s.finished_on is null)
           order by id for no key update`,
          [of.personId],
        );
  for (let from = 0; from < open.length; from += BATCH)
    await replan(
      tx,
      open.slice(from, from + BATCH).map((row) => row.id),
      now,
    );
}
