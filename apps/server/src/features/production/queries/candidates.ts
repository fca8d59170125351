import { addDays, costOf, dayIn, daysBetween, isWorkingDay, weekdayOf, type Day } from '@zesting/core';
import type { CandidateShape, DelaysShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { currencyOf, freelanceRates } from '../../money/index.js';
import { getDoer, loadCalendars, delaysByCandidates, loadSources, pieceState, predictCandidates } from '../../planning/index.js';

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

/** For so many at most it is predicted what it would come to: the likeliest first. */
const PREDICTED = 30;
/** So many pieces that become late are named. */
const NAMED = 3;

/**
 * Who could do a step: skill, what is open, days off before it is due, what the path would be, and what it costs. Whoever usually does it first, then the skilled, then least open.
 */
export async function candidatesFor(app: App, viewer: Viewer, stepId: string): Promise<CandidateShape[]> {
  const [step] = await app.read<{ piece_id: string; skill: string; client_id: string; minutes: number }>(
    'select s.piece_id, s.skill, p.client_id, coalesce(s.remaining_minutes, s.effort_minutes) as minutes from steps s join pieces p on p.id = s.piece_id where s.id = $1',
    [stepId],
  );
  if (!step) throw new Error('the step went away');
  const people = await peopleFor(app, step);
  const book = await loadCalendars(app.manager, app.clock.now());
  const [source] = await loadSources(app.manager, [step.piece_id]);
  if (!source) throw new Error('the piece went away');
  const predicted = await predictCandidates(app, stepId, likely(people, source.steps.find(({ id }) => id === stepId)?.doer_id ?? null));
  const rates = viewer.role === 'lead' ? await freelanceRates(app, dayIn(app.clock.now(), viewer.zone)) : new Map<string, number>();
  const currency = await currencyOf(app);
  return people.map((person) => {
    const given = { ...source, steps: source.steps.map((other) => (other.id === stepId ? { ...other, doer_id: person.id } : other)) };
    const plan = new Map(pieceState(given, book).plan?.steps.map((other) => [other.id, other]));
    const planned = plan.get(stepId);
    const doer = getDoer(book, person.id);
    const hourly = rates.get(person.id);
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
      cost: hourly === undefined ? null : { amount: costOf(step.minutes, hourly), currency },
      latestFinishOn: planned?.latestFinishOn ?? null,
      knowsClient: person.knows_client,
      isBarred: person.is_barred,
      isUsual: person.is_usual,
    };
  });
}

/** Everybody of the agency, as they are to a step: whoever usually does it first, then the skilled, then least open. */
const peopleFor = (app: App, step: { readonly skill: string; readonly client_id: string }): Promise<PersonRow[]> =>
  app.read<PersonRow>(
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

/** Those who could do a step, and whoever has it: the others are not waited for. All where nobody could. */
function likely(people: readonly PersonRow[], doerId: string | null): string[] {
  const able = people.filter((person) => !person.is_barred && (person.level > 0 || person.id === doerId));
  return (able.length > 0 ? able : people).slice(0, PREDICTED).map((person) => person.id);
}

/**
 * Which other pieces become late, or later, if a step is given to each who could do it; by name those of the viewer's clients, the others are counted.
 * Nobody is told of for whom there was no time.
 */
export async function delaysFor(app: App, { clientIds }: Viewer, stepId: string): Promise<DelaysShape[]> {
  const [step] = await app.read<{ skill: string; client_id: string; doer_id: string | null }>(
    'select s.skill, p.client_id, s.doer_id from steps s join pieces p on p.id = s.piece_id where s.id = $1',
    [stepId],
  );
  if (!step) throw new Error('the step went away');
  const delays = await delaysByCandidates(app, stepId, likely(await peopleFor(app, step), step.doer_id));
  const rows = await app.read<{ id: string; title: string }>('select id, title from pieces where id = any($1) and client_id = any($2)', [
    [...new Set(Object.values(delays).flat())],
    clientIds,
  ]);
  const titles = new Map(rows.map(({ id, title }) => [id, title]));
  return Object.entries(delays).map(([personId, ids]) => ({
    personId,
    count: ids.length,
    titles: ids.flatMap((id) => titles.get(id) ?? []).slice(0, NAMED),
  }));
}

/** Weekdays from `from` to `to` on which nobody is there. */
function weekdaysOff(from: Day, to: Day, works: (day: Day) => boolean): string[] {
  const days = Array.from({ length: Math.max(0, Math.min(60, daysBetween(from, to) + 1)) }, (_, index) => addDays(from, index));
  return days.filter((day) => weekdayOf(day) <= 5 && !works(day));
}
