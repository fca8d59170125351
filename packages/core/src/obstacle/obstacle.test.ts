import fc from 'fast-check';
import { addDays, getDay, type Day } from '../time/index.js';
import { toCalendar } from '../workdays/index.js';
import { predictWorkload, type WorkloadStep } from '../workload/index.js';
import { standsUntil } from './index.js';

const MONDAY = getDay('2027-03-01');
const dayOf = (number: number): Day => addDays(MONDAY, number - 1);
const at = (day: number | null) => ({ untilOn: day === null ? null : dayOf(day) });

describe('what stands in the way', () => {
  it('stands until the latest day that is expected, and today while it is not settled', () => {
    expect(standsUntil([], MONDAY)).toBeNull();
    expect(standsUntil([at(4)], MONDAY)).toBe(dayOf(4));
    expect(standsUntil([at(2), at(6), at(null)], MONDAY)).toBe(dayOf(6));
    expect(standsUntil([at(null)], MONDAY)).toBe(MONDAY);
    expect(standsUntil([at(-3)], MONDAY)).toBe(MONDAY); // was to be gone last week, and is not
  });

  const doer = (more = {}) => ({
    calendar: toCalendar({ weeklyMinutes: [60, 60, 60, 60, 60, 0, 0] }),
    zone: 'Europe/London',
    todayOn: MONDAY,
    todayCounts: true,
    ...more,
  });
  const step = (id: string, more: Partial<WorkloadStep> = {}): WorkloadStep => ({
    id,
    doer: 'A',
    spanDays: 1,
    effortMinutes: 60,
    predecessorIds: [],
    latestFinishOn: dayOf(5),
    ...more,
  });
  const ends = (steps: readonly WorkloadStep[]) =>
    Object.fromEntries(predictWorkload({ steps, doers: { A: doer() } }).steps.map(({ id, finishOn }) => [id, finishOn]));

  // worked by hand: five days a week, an hour a day
  it('puts work off to the working day after, and lets other work go first', () => {
    expect(ends([step('film', { blockedUntilOn: dayOf(1) }), step('write')])).toEqual({ film: dayOf(2), write: dayOf(1) });
    expect(ends([step('film', { blockedUntilOn: dayOf(5) })])).toEqual({ film: dayOf(8) }); // Friday, so Monday
    expect(ends([step('film', { blockedUntilOn: dayOf(2) }), step('cut', { predecessorIds: ['film'] })])).toEqual({
      film: dayOf(3),
      cut: dayOf(4),
    });
  });

  it('stops what is begun, too; what it was begun on stays', () => {
    const begun = step('film', { startedOn: addDays(MONDAY, -3), blockedUntilOn: dayOf(3) });
    expect(predictWorkload({ steps: [begun], doers: { A: doer() } }).steps).toEqual([
      { id: 'film', startOn: addDays(MONDAY, -3), finishOn: dayOf(4), behindSteps: 0 },
    ]);
    expect(ends([step('done', { finishedOn: MONDAY, blockedUntilOn: dayOf(9) }), step('next', { predecessorIds: ['done'] })])).toEqual({
      next: dayOf(2),
    });
  });

  it('never lets a step that it stops end before it is gone, and never makes that step earlier', () => {
    const anySteps = fc.array(
      fc.record({
        effort: fc.integer({ min: 0, max: 180 }),
        span: fc.integer({ min: 1, max: 4 }),
        due: fc.option(fc.integer({ min: 1, max: 20 }), { nil: null }),
        blocked: fc.option(fc.integer({ min: 1, max: 25 }), { nil: null }),
        follows: fc.boolean(),
      }),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(anySteps, (made) => {
        const steps = made.map(({ effort, span, due, blocked, follows }, index) =>
          step(`s${index}`, {
            effortMinutes: effort,
            spanDays: span,
            latestFinishOn: due === null ? null : dayOf(due),
            blockedUntilOn: blocked === null ? null : dayOf(blocked),
            predecessorIds: follows && index > 0 ? [`s${index - 1}`] : [],
          }),
        );
        const finishes = ends(steps);
        for (const { id, blockedUntilOn } of steps) if (blockedUntilOn) expect((finishes[id] ?? '') > blockedUntilOn).toBe(true);
        const alone = steps.at(-1) as WorkloadStep;
        const free = ends(steps.map((one) => (one.id === alone.id ? { ...one, blockedUntilOn: null } : one)));
        expect((finishes[alone.id] ?? '') >= (free[alone.id] ?? '')).toBe(true);
      }),
    );
  });
});
