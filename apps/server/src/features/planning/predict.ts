import { getDay, predictWorkload, type InstantText, type PredictedStep, type WorkloadStep } from '@zesting/core';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { loadCalendars, type CalendarBook } from './calendars.js';
import { toPlanStep, type StepSource } from './piece-state.js';
import { replanPieces } from './replan.js';

/** A step of an open piece, as the prediction of load sees it. */
export interface OpenStepRow extends StepSource {
  piece_id: string;
  client_id: string;
  latest_finish_on: string | null;
  left_minutes: number;
  predicted_start_on: string | null;
  behind_steps: number;
}

/** The steps of all open pieces, finished ones too, older pieces first. */
export const loadOpenSteps = (tx: Tx): Promise<OpenStepRow[]> =>
  rowsOf<OpenStepRow>(
    tx,
    `select s.id, s.piece_id, p.client_id, s.title, s.kind, d.id as doer_id, s.span_days, s.same_day, s.predecessor_ids, s.started_on, s.finished_on,
       s.latest_finish_on, coalesce(s.remaining_minutes, s.effort_minutes) as left_minutes, s.predicted_start_on, s.predicted_finish_on, s.behind_steps
     from pieces p join steps s on s.piece_id = p.id left join people d on d.id = s.doer_id and d.active
     where p.list is not null order by p.number, p.id, s.position`,
  );

/** Predicts the whole agency's work from the steps of all open pieces; with `until`, no further than the end of that step. */
export function predictSteps(rows: readonly OpenStepRow[], book: CalendarBook, until?: string): Map<string, PredictedStep> {
  const steps = rows.map<WorkloadStep>((row) => ({
    ...toPlanStep(row, row.client_id),
    effortMinutes: row.left_minutes,
    latestFinishOn: row.latest_finish_on === null ? null : getDay(row.latest_finish_on),
  }));
  return new Map(
    predictWorkload({ steps, doers: book.doers, ...(until === undefined ? {} : { until }) }).steps.map((step) => [step.id, step]),
  );
}

/** The stored columns of a prediction, as the full recompute must find them. */
export const storedPrediction = (id: string, predicted: PredictedStep | undefined) => ({
  id,
  predicted_start_on: predicted?.startOn ?? null,
  predicted_finish_on: predicted?.finishOn ?? null,
  behind_steps: predicted?.behindSteps ?? 0,
});

/**
 * Predicts the work of the whole agency anew, stores what changed, and plans the pieces anew whose steps it changed for the danger that
 * follows. Latest dates do not depend on predictions, so once is enough.
 * @returns how many pieces changed
 */
export async function predict(tx: Tx, now: InstantText): Promise<number> {
  const book = await loadCalendars(tx, now);
  const rows = await loadOpenSteps(tx);
  const predicted = predictSteps(rows, book);
  const changed = rows.flatMap((row) => {
    const stored = storedPrediction(row.id, predicted.get(row.id));
    const isSame =
      row.predicted_start_on === stored.predicted_start_on &&
      row.predicted_finish_on === stored.predicted_finish_on &&
      row.behind_steps === stored.behind_steps;
    return isSame ? [] : [{ ...stored, piece_id: row.piece_id }];
  });
  const pieceIds = [...new Set(changed.map((row) => row.piece_id))].sort();
  await rowsOf(tx, 'select 1 from pieces where id = any($1) order by id for update', [pieceIds]);
  await tx.query(
    `update steps s set predicted_start_on = n.predicted_start_on, predicted_finish_on = n.predicted_finish_on, behind_steps = n.behind_steps
     from jsonb_to_recordset($1) as n(id uuid, predicted_start_on date, predicted_finish_on date, behind_steps int) where s.id = n.id`,
    [JSON.stringify(changed)],
  );
  await tx.query(
    `update steps s set predicted_start_on = null, predicted_finish_on = null, behind_steps = 0
     from pieces p where p.id = s.piece_id and p.list is null and s.predicted_start_on is not null`,
  );
  await replanPieces(tx, pieceIds, now);
  return pieceIds.length;
}
