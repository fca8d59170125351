import type { ClockShape, OwnClockShape, StepHoursShape, WorkedShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';

/** The hours of a step, the latest first: all of them for who manages, else one's own. */
export async function hoursOf(app: App, viewer: Viewer, stepId: string): Promise<StepHoursShape> {
  const manages = viewer.role === 'lead' || viewer.role === 'manager';
  const worked = await app.read<WorkedShape>(
    `select w.id, d.name as "personName", w.on_day as on, w.minutes, ($3 or w.person_id = $2) as "canRemove"
     from worked w join people d on d.id = w.person_id where w.step_id = $1 and w.removed_at is null and ($3 or w.person_id = $2) order by w.on_day desc, w.started_at desc nulls last, w.id limit 200`,
    [stepId, viewer.personId, manages],
  );
  return { minutes: worked.reduce((sum, { minutes }) => sum + (minutes ?? 0), 0), worked };
}

/** The clock that somebody has running. */
export async function ownClock(app: App, viewer: Viewer): Promise<OwnClockShape> {
  const [clock] = await app.read<ClockShape>(
    `select w.step_id as "stepId", w.step_title as "stepTitle", w.piece_id as "pieceId", p.title as "pieceTitle", w.started_at as "startedAt"
     from worked w join pieces p on p.id = w.piece_id where w.person_id = $1 and w.minutes is null and w.removed_at is null`,
    [viewer.personId],
  );
  return { clock: clock ?? null };
}
