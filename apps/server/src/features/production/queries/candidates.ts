import { addDays, daysBetween, isWorkingDay, weekdayOf, type Day } from '@zesting/core';
import type { CandidateShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { getDoer, loadCalendars, loadSources, pieceState, predictCandidates } from '../../planning/index.js';

interface PersonRow {
  id: string;
  name: string;
  role: string;
  zone: string;
  level: number;
  open_steps: number;
  open_minutes: number;
  knows_client: boolean;
  is_barred: boolean;
  is_usual: boolean;
}

/** For so many at most it is predicted when they would end: the likeliest first. */
const PREDICTED = 30;

/** Who could do a step: skill, what is open, days off before it is due, and what the path would be. Whoever usually does it first, then the skilled, then least open. */
export async function candidatesFor(app: App, stepId: string): Promise<CandidateShape[]> {
  const [step] = await app.read<{ piece_id: string; skill: string; client_id: string }>(
    'select s.piece_id, s.skill, p.client_id from steps s join pieces p on p.id = s.piece_id where s.id = $1',
    [stepId],
  );
  if (!step) throw new Error('the step went away');
  const people = await app.read<PersonRow>(
    `select p.id, p.name, p.role, p.zone, coalesce((p.skills ->> $1)::int, 0) as level,
       (select count(*) from steps s where s.doer_id = p.id and s.finished_on is null) as open_steps,
       (select coalesce(sum(coalesce(s.remaining_minutes, s.effort_minutes)), 0) from steps s where s.doer_id = p.id and s.finished_on is null) as open_minutes,
       coalesce(o.relation = 'own', false) or exists (select 1 from steps s join pieces i on i.id = s.piece_id
         where s.doer_id = p.id and s.finished_on is not null and i.client_id = $2) as knows_client,
       coalesce(o.relation = 'barred', false) as is_barred,
       exists (select 1 from client_team t where t.client_id = $2 and t.skill = $1 and t.person_id = p.id) as is_usual
     from people p left join client_people o on o.person_id = p.id and o.client_id = $2
     where p.active order by is_barred, is_usual desc, level desc, open_minutes, p.name`,
    [step.skill, step.client_id],
  );
  const book = await loadCalendars(app.manager, app.clock.now());
  const [source] = await loadSources(app.manager, [step.piece_id]);
  if (!source) throw new Error('the piece went away');
  // predictions are for those who could do it, and for whoever has it: the others are not waited for
  const likely = people.filter(
    (person) => !person.is_barred && (person.level > 0 || source.steps.some((other) => other.id === stepId && other.doer_id === person.id)),
  );
  const predicted = await predictCandidates(
    app,
    stepId,
    (likely.length > 0 ? likely : people).slice(0, PREDICTED).map((person) => person.id),
  );
  return people.map((person) => {
    const given = { ...source, steps: source.steps.map((other) => (other.id === stepId ? { ...other, doer_id: person.id } : other)) };
    const plan = new Map(pieceState(given, book).plan?.steps.map((other) => [other.id, other]));
    const planned = plan.get(stepId);
    const doer = getDoer(book, person.id);
    return {
      personId: person.id,
      name: person.name,
      role: person.role,
      zone: person.zone,
      skillLevel: person.level,
      openSteps: person.open_steps,
      openMinutes: person.open_minutes,
      timeOffOn: weekdaysOff(doer.todayOn, planned?.latestFinishOn ?? addDays(doer.todayOn, 14), (day) => isWorkingDay(doer.calendar, day)),
      predictedFinishOn: predicted[person.id] ?? null,
      latestFinishOn: planned?.latestFinishOn ?? null,
      knowsClient: person.knows_client,
      isBarred: person.is_barred,
      isUsual: person.is_usual,
    };
  });
}

/** Weekdays from `from` to `to` on which nobody is there. */
function weekdaysOff(from: Day, to: Day, works: (day: Day) => boolean): string[] {
  const days = Array.from({ length: Math.max(0, Math.min(60, daysBetween(from, to) + 1)) }, (_, index) => addDays(from, index));
  return days.filter((day) => weekdayOf(day) <= 5 && !works(day));
}
