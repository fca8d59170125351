import type { InstantText } from '@zesting/core';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { addJob } from '../../platform/jobs/jobs.js';
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
  if (states.length > 0) await addJob(tx, PREDICT, {}, { key: PREDICT });
  return states;
}

/** As `replan`, by predictions as they are stored. */
export async function replanPieces(tx: Tx, pieceIds: readonly string[], now: InstantText): Promise<PieceState[]> {
  const states = await computeStates(tx, pieceIds, now);
  if (states.length === 0) return [];
  await tx.query(
    `update pieces p set stage = n.stage, list = n.list, aim_on = n.aim_on, aim_at = n.aim_at, danger = n.danger, slack_days = n.slack_days,
       late_from_on = n.late_from_on, earliest_publish_on = n.earliest_publish_on, packet_due_on = n.packet_due_on, progress = n.progress,
       revision = p.revision + 1, planned_at = $2
     from jsonb_to_recordset($1) as n(id uuid, stage text, list text, aim_on date, aim_at timestamptz, danger text, slack_days int,
       late_from_on date, earliest_publish_on date, packet_due_on date, progress jsonb)
     where p.id = n.id`,
    [JSON.stringify(states.map(storedPiece)), now],
  );
  await tx.query(
    `update steps s set latest_start_on = n.latest_start_on, latest_finish_on = n.latest_finish_on, earliest_start_on = n.earliest_start_on,
       earliest_finish_on = n.earliest_finish_on, slack_days = n.slack_days, danger = n.danger
     from jsonb_to_recordset($1) as n(id uuid, latest_start_on date, latest_finish_on date, earliest_start_on date, earliest_finish_on date,
       slack_days int, danger text)
     where s.id = n.id`,
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

const BATCH = 200;

/** Plans every open piece anew: after midnight somewhere, a day off, a changed calendar. Returns how many. */
export async function replanOpen(tx: Tx, now: InstantText): Promise<number> {
  const open = await rowsOf<{ id: string }>(tx, 'select id from pieces where list is not null or revision = 0 order by id for update');
  for (let from = 0; from < open.length; from += BATCH) {
    await replan(
      tx,
      open.slice(from, from + BATCH).map((row) => row.id),
      now,
    );
  }
  return open.length;
}

/** Plans the open pieces that a changed calendar touches: those of a client, or those with an open step of a person. */
export async function replanWhere(
  tx: Tx,
  of: { readonly clientId: string } | { readonly personId: string },
  now: InstantText,
): Promise<void> {
  const open =
    'clientId' in of
      ? await rowsOf<{ id: string }>(tx, 'select id from pieces where client_id = $1 and list is not null order by id for update', [
          of.clientId,
        ])
      : await rowsOf<{ id: string }>(
          tx,
          `select id from pieces where list is not null and exists (select 1 from steps s where s.piece_id = pieces.id and s.doer_id = $1 and s.finished_on is null)
           order by id for update`,
          [of.personId],
        );
  for (let from = 0; from < open.length; from += BATCH)
    await replan(
      tx,
      open.slice(from, from + BATCH).map((row) => row.id),
      now,
    );
}
