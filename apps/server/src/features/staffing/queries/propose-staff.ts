import {
  costOf,
  fail,
  ok,
  ROSTER_STAGES,
  rosterIn,
  rosterLp,
  type Day,
  type Result,
  type RosterModel,
  type RosterValue,
} from '@zesting/core';
import type { AbleDoerShape, LeftStepShape, ProposedFor, ProposedGiveShape, StaffingProposalShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { solve } from '../../../platform/work/solve.js';
import { currencyOf, freelanceRates } from '../../money/index.js';
import { isClientsStep, bestOfChoices, rosterFor, type AblePerson, type GivenOutcome } from '../../planning/index.js';
import { latePieces } from './late-pieces.js';

/** So many steps are looked at together at most, the soonest due of them. */
const MOST_STEPS = 120;
/** Of those who could take a step so many are thought of. */
const MOST_ABLE = 8;
/** The solver has so long for each of its stages. */
const STAGE_SECONDS = 15;
/** Whoever has a step already keeps it, unless somebody else makes a difference. */
const CHANGES_HANDS = 10;

interface Asked {
  /** whose steps */
  readonly clientIds: readonly string[];
  /** whose pieces are told by name where they become late by it */
  readonly seenIds: readonly string[];
  readonly todayOn: Day;
  readonly untilOn: Day;
  /** also steps that somebody has and has not begun */
  readonly withGiven: boolean;
  /** what freelance hours cost is told: to whoever may know rates */
  readonly tellsCosts: boolean;
}

interface OpenStep {
  id: string;
  version: number;
  title: string;
  skill: string;
  minutes: number;
  pieceId: string;
  pieceTitle: string;
  clientId: string;
  doerId: string | null;
  doerName: string | null;
  able: { personId: string; name: string; isUsual: boolean; isOwn: boolean; level: number }[];
}

/** The open steps of clients that are due by a day, the soonest first, with who could take each. */
const openSteps = (app: App, { clientIds, untilOn, withGiven }: Asked): Promise<OpenStep[]> =>
  app.read<OpenStep>(
    `select s.id, s.version, s.title, s.skill, coalesce(s.remaining_minutes, s.effort_minutes) as minutes, p.id as "pieceId", p.title as "pieceTitle",
       p.client_id as "clientId", h.id as "doerId", h.name as "doerName",
       (select coalesce(jsonb_agg(jsonb_build_object('personId', a.id, 'name', a.name, 'isUsual', a.usual, 'isOwn', a.own, 'level', a.level)), '[]') from (
          select d.id, d.name, t.person_id is not null as usual, coalesce(o.relation = 'own', false) as own, (d.skills ->> s.skill)::int as level
          from people d left join client_people o on o.person_id = d.id and o.client_id = p.client_id
          left join client_team t on t.client_id = p.client_id and t.skill = s.skill and t.person_id = d.id
          where d.active and coalesce((d.skills ->> s.skill)::int, 0) > 0 and coalesce(o.relation, 'none') <> 'barred'
          order by d.id = h.id desc nulls last, usual desc, own desc, level desc, d.name limit ${MOST_ABLE}) a) as able
     from steps s join pieces p on p.id = s.piece_id left join people h on h.id = s.doer_id and h.active
     where p.list is not null and p.client_id = any($1) and s.finished_on is null and s.started_on is null and not ${isClientsStep('s')}
       and (h.id is null or ($3::boolean and s.accepted_on is null)) and coalesce(s.latest_finish_on, s.earliest_start_on) <= $2::date
     order by s.latest_finish_on nulls last, p.number, s.position`,
    [clientIds, untilOn, withGiven],
  );

/** Why somebody could take a step, and how far they are from whoever would be the first choice. */
const choiceOf = ({ isUsual, isOwn, level }: OpenStep['able'][number]): { why: ProposedFor; fit: number } => ({
  why: isUsual ? 'usual' : isOwn ? 'own' : 'skill',
  fit: isUsual ? 0 : 1 + (isOwn ? 0 : 2) + Math.max(0, 3 - level),
});

/**
 * Proposes doers for the steps of a period together: fewest late days first, then least to pay to freelance creators, then whom one would choose. By an integer programme in a thread of its
 * own; what it and the quick way say is tried on everybody's work. Nothing is stored.
 * @param signal ends it when nobody waits any more
 */
export async function proposeStaff(
  app: App,
  asked: Asked,
  signal: AbortSignal,
): Promise<Result<StaffingProposalShape, { code: 'staffing.not_found' }>> {
  const started = performance.now();
  const all = await openSteps(app, asked);
  const steps = all.slice(0, MOST_STEPS);
  const rates = await freelanceRates(app, asked.todayOn);
  const able = Object.fromEntries(
    steps.map((step) => [
      step.id,
      step.able.map((one): AblePerson => {
        const isNew = step.doerId !== null && step.doerId !== one.personId;
        const fit = step.doerId === one.personId ? 0 : choiceOf(one).fit + (isNew ? CHANGES_HANDS : 0);
        return { personId: one.personId, fit, hourly: rates.get(one.personId) ?? 0 };
      }),
    ]),
  );
  const { model, late, quick } = await rosterFor(app, { able });
  const solved = await solveRoster({ able, model, late }, signal);
  if (signal.aborted) return fail({ code: 'staffing.not_found' });
  const outcome = await bestOfChoices(app, { able, choices: solved ? [solved.gives, quick] : [quick] });
  return ok({
    ...told(steps, outcome, asked.tellsCosts ? rates : new Map()),
    ...(await latePieces(app, asked.seenIds, outcome)),
    currency: await currencyOf(app),
    moreSteps: all.length - steps.length,
    isProven: solved?.isProven === true,
    milliseconds: Math.round(performance.now() - started),
  });
}

const count = (of: object): number => Object.keys(of).length;

/** What the solver says, stage after stage, no later than is known to be reached; undefined where it found nothing. */
async function solveRoster(
  { able, model, late }: { readonly able: object; readonly model: RosterModel; readonly late: number },
  signal: AbortSignal,
): Promise<{ gives: Readonly<Record<string, string>>; isProven: boolean } | undefined> {
  let kept: Partial<RosterValue> = { late };
  let found: { gives: Readonly<Record<string, string>>; isProven: boolean } | undefined;
  for (const stage of ROSTER_STAGES) {
    const isLevel = model.columns.every((column) => column[stage] === 0);
    if (isLevel) continue;
    const solved = await solve(rosterLp(model, stage, kept), STAGE_SECONDS, signal);
    if (!solved) return found && { ...found, isProven: false };
    const chosen = model.columns.filter(({ name }) => (solved.columns[name] ?? 0) > 0.5);
    // time was up before it had any
    if (chosen.length < count(able)) return found && { ...found, isProven: false };
    kept = { ...kept, [stage]: chosen.reduce((sum, column) => sum + column[stage], 0) };
    const gives = Object.fromEntries([...rosterIn(model, solved.columns)].map(([id, { doer }]) => [id, doer]));
    found = { gives, isProven: (found?.isProven ?? true) && solved.isProven };
    if (!solved.isProven) break; // a stage that builds on what is not proven would only take time
  }
  return found;
}

/** The proposal in words: who takes what, who else could, and what is left. @param rates what an hour of freelance creators is paid, as far as it is told */
function told(
  steps: readonly OpenStep[],
  { gives, steps: ends }: GivenOutcome,
  rates: ReadonlyMap<string, number>,
): Pick<StaffingProposalShape, 'gives' | 'left'> {
  const ableFor = (step: OpenStep): AbleDoerShape[] =>
    step.able.map((one) => {
      const hourly = rates.get(one.personId);
      return {
        personId: one.personId,
        name: one.name,
        why: choiceOf(one).why,
        cost: hourly === undefined ? null : costOf(step.minutes, hourly),
      };
    });
  const proposed = steps.flatMap((step): ProposedGiveShape[] => {
    const personId = gives[step.id];
    const able = ableFor(step);
    const one = able.find((each) => each.personId === personId);
    if (!one || one.personId === step.doerId) return [];
    const { id: stepId, title: stepTitle, version, pieceId, pieceTitle, clientId, minutes, doerName: fromName } = step;
    const end = ends[stepId] ?? { predictedFinishOn: null, latestFinishOn: null };
    const { name: personName, why, cost } = one;
    const others = able.filter((each) => each !== one && each.personId !== step.doerId);
    const who = { personId: one.personId, personName, why, cost, others };
    return [{ stepId, version, stepTitle, pieceId, pieceTitle, clientId, minutes, fromName, ...who, ...end }];
  });
  const left = steps.flatMap((step): LeftStepShape[] => {
    if (gives[step.id] !== undefined || step.doerId !== null) return [];
    const { id: stepId, title: stepTitle, version, minutes, pieceId, pieceTitle, clientId, skill } = step;
    const others = ableFor(step);
    return [
      {
        stepId,
        version,
        minutes,
        stepTitle,
        pieceId,
        pieceTitle,
        clientId,
        skill,
        why: others.length === 0 ? 'nobody_able' : 'no_hours',
        others,
      },
    ];
  });
  return { gives: proposed, left };
}
