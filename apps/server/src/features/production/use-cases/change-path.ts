import { randomUUID } from 'node:crypto';
import {
  changePath,
  dayInWords,
  fail,
  getDay,
  isByClient,
  isWorkingDay,
  ok,
  skillOf,
  type AlongStep,
  type ChangeableStep,
  type Day,
  type InstantText,
  type PathChange,
  type PathFailure,
  type Result,
  type RouteStep,
} from '@zesting/core';
import type { PathChangeBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { Reader } from '../../../platform/database/rows.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Event } from '../../../platform/events.js';
import { tell, untell } from '../../notices/index.js';
import { doerKey, loadCalendars, replan, routeAsOf, type TriedChange } from '../../planning/index.js';
import type { Piece } from '../entities/piece.entity.js';
import { Step } from '../entities/step.entity.js';
import { StepTick } from '../entities/step-tick.entity.js';
import { isAvailable, lockPiece, stepKey, stepsOf } from '../piece-store.js';
import { giveStep } from './assign-step.js';
import { tellDecider, tellNext } from './tell-next.js';

export type PathRefused =
  | PathFailure
  | {
      readonly code:
        'http.changed_meanwhile' | 'skill.unknown' | 'step.pin_on_day_off' | 'step.pin_in_past' | 'person.unknown' | 'person.barred';
    };

/** A step as core changes it: the row, with its days. */
type PathRow = Omit<Step, 'startedOn' | 'finishedOn' | 'pinnedFinishOn'> & ChangeableStep;

const dayOf = (day: string | null): Day | null => (day === null ? null : getDay(day));
export const asRow = (step: Step): PathRow => ({
  ...step,
  startedOn: dayOf(step.startedOn),
  finishedOn: dayOf(step.finishedOn),
  pinnedFinishOn: dayOf(step.pinnedFinishOn),
});

/**
 * The changes as core takes them, each new step with an id. A change that is not whole cannot come here: the body was checked.
 * @param path the steps of the route, for what is brought back
 */
export function toTried(changes: readonly PathChangeBody[], path: readonly RouteStep[]): TriedChange[] {
  return changes.map((change): TriedChange => {
    const { kind, stepId = '', title = '', spanDays = 1, effortMinutes = 0, sameDay = false } = change;
    const does = change.does ?? 'make';
    const step = {
      id: randomUUID(),
      title: title.trim(),
      kind: does,
      skill: skillOf({ kind: does, skill: change.skill ?? '' }),
      spanDays,
      effortMinutes: isByClient(does) ? 0 : effortMinutes,
      sameDay,
    };
    switch (kind) {
      case 'leave_out':
        return { kind, stepId };
      case 'bring_back':
        return { kind, id: step.id, key: change.key ?? '', route: path };
      case 'add':
        return { kind, step, place: change.place ?? 'after', stepId };
      case 'split':
        return { kind, step, place: change.place === 'beside' ? 'beside' : 'after', stepId };
      case 'retime':
        return { kind, stepId, spanDays, effortMinutes };
      case 'pin':
        return { kind, stepId, finishOn: change.finishOn ? getDay(change.finishOn) : null };
      case 'give':
        return { kind, stepId, personId: change.personId ?? null };
    }
  });
}

/** What speaks against changes before core looks at them: a skill that is not on the list, a pin on a day that is no day of work, or gone. */
export async function refusedBefore(
  reader: Reader,
  changes: readonly PathChangeBody[],
  steps: readonly Pick<Step, 'id' | 'kind' | 'doerId' | 'version'>[],
  clientId: string,
  now: InstantText,
): Promise<PathRefused | null> {
  const stepOf = new Map(steps.map((step) => [step.id, step]));
  if (changes.some(({ stepId, version }) => version !== undefined && (stepOf.get(stepId ?? '')?.version ?? version) !== version))
    return { code: 'http.changed_meanwhile' };
  const skills = [
    ...new Set(
      changes.flatMap(({ kind, skill, does }) => (kind === 'add' && skill !== undefined && does !== 'deliver' ? [skill.trim()] : [])),
    ),
  ];
  const known = skills.length > 0 ? await rowsOf(reader, 'select 1 from skills where name = any($1)', [skills]) : [];
  if (known.length < skills.length) return { code: 'skill.unknown' };
  const pins = changes.flatMap(({ kind, stepId = '', finishOn }) => (kind === 'pin' && finishOn ? [{ stepId, on: getDay(finishOn) }] : []));
  if (pins.length === 0) return null;
  const book = await loadCalendars(reader, now);
  for (const { stepId, on } of pins) {
    const step = stepOf.get(stepId);
    // whoever is given the step in the same breath is who works that day
    const given = changes.find((change) => change.kind === 'give' && change.stepId === stepId);
    if (!step) continue; // core says so
    const doer = book.doers[doerKey({ kind: step.kind, doer_id: given ? (given.personId ?? null) : step.doerId }, clientId)];
    if (!doer) return { code: 'person.unknown' };
    if (!isWorkingDay(doer.calendar, on)) return { code: 'step.pin_on_day_off' };
    if (on < doer.todayOn) return { code: 'step.pin_in_past' };
  }
  return null;
}

/** Makes changes of a piece's path, all or none. Everything is planned anew; whoever can start now hears it. */
export function changePiecePath(
  app: App,
  viewer: Viewer,
  pieceId: string,
  changes: readonly PathChangeBody[],
): Promise<Result<null, PathRefused>> {
  return app.write<null, PathRefused>(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    const before = await stepsOf(tx, pieceId);
    const refused = await refusedBefore(tx, changes, before, piece.clientId, now);
    if (refused) return fail(refused);
    const route = await routeAsOf(tx, piece.routeId, piece.routeVersion);
    const tried = toTried(changes, route);
    const ofPath = tried.filter((change): change is PathChange => change.kind !== 'give');
    const changed = changePath(before.map(asRow), ofPath, (added, from) =>
      newRow(added, piece, from, from?.checklist ?? route.find(({ key }) => key === added.key)?.checklist ?? []),
    );
    if (!changed.ok) return changed;
    const directly = new Set(ofPath.flatMap((change) => (change.kind === 'bring_back' || change.kind === 'add' ? [] : [change.stepId])));
    await store(tx, before, changed.value, directly, now);
    for (const change of ofPath) await note(tx, viewer, piece, change, before, now);
    for (const step of before.filter(({ id }) => !changed.value.some((other) => other.id === id)))
      await tellGone(app, tx, viewer, piece, step);
    await tellPinned(app, tx, viewer, piece, before, ofPath);
    await replan(tx, [pieceId], now);
    for (const change of tried) {
      if (change.kind !== 'give') continue;
      if (!changed.value.some(({ id }) => id === change.stepId)) return fail({ code: 'step.not_on_path' });
      const given = await giveStep(app, tx, viewer, change, now);
      if (!given.ok) return given;
    }
    await tellStarted(app, tx, viewer, piece, before);
    return ok(null);
  });
}

/** A row for what a path is given: nobody has it, and it stands where core put it. */
const newRow = (added: ChangeableStep, piece: Piece, from: PathRow | undefined, checklist: readonly string[]): PathRow => ({
  ...added,
  pieceId: piece.id,
  key: added.key ?? `by_hand_${added.id.slice(0, 8)}`,
  predecessorIds: [...added.predecessorIds],
  doerId: null,
  withId: null,
  position: from?.position ?? 0,
  checklist: [...checklist],
  remark: null,
  assignedOn: null,
  acceptedOn: null,
  version: 1,
  latestStartOn: null,
  latestFinishOn: null,
  earliestStartOn: null,
  earliestFinishOn: null,
  slackDays: null,
  danger: null,
  predictedStartOn: null,
  predictedFinishOn: null,
  behindSteps: 0,
});

/** A step goes from its path; what hangs on it goes with it. */
export const stepLeftOut = new Event<{ readonly id: string }>();

/** Takes out what is gone, adds what is new, and writes of the others what differs. */
async function store(
  tx: Tx,
  before: readonly Step[],
  after: readonly PathRow[],
  directly: ReadonlySet<string>,
  now: InstantText,
): Promise<void> {
  const was = new Map(before.map((step) => [step.id, step]));
  const kept = new Set(after.map(({ id }) => id));
  const gone = before.filter(({ id }) => !kept.has(id));
  for (const { id } of gone) {
    await stepLeftOut.tell(tx, { id }, now);
    await tx.delete(StepTick, { stepId: id });
    await tx.delete(Step, id);
  }
  for (const [position, row] of after.entries()) {
    const old = was.get(row.id);
    const { spanDays, effortMinutes, remainingMinutes, pinnedFinishOn } = row;
    const predecessorIds = [...row.predecessorIds];
    if (!old) {
      const { pieceId, key, title, kind, skill, sameDay, optional, checklist, round } = row;
      const given = { id: row.id, pieceId, key, title, kind, skill, sameDay, optional, checklist, round, doerId: null };
      await tx.insert(Step, { ...given, spanDays, effortMinutes, remainingMinutes, pinnedFinishOn, predecessorIds, position, version: 1 });
    } else if (directly.has(row.id) || old.position !== position || old.predecessorIds.join() !== predecessorIds.join())
      await tx.update(Step, row.id, {
        ...{ position, predecessorIds, spanDays, effortMinutes, remainingMinutes, pinnedFinishOn },
        version: old.version + (directly.has(row.id) ? 1 : 0),
      });
  }
}

/** Stores a path that was taken along with its route. @param changed the steps that it changed */
export async function storeAlong(
  tx: Tx,
  piece: Piece,
  before: readonly Step[],
  after: readonly AlongStep[],
  changed: ReadonlySet<string>,
  now: InstantText,
): Promise<void> {
  const was = new Map(before.map((step) => [step.id, asRow(step)]));
  const rows = after.map((step) => {
    const old = was.get(step.id);
    return old
      ? { ...old, ...step, key: old.key, predecessorIds: [...step.predecessorIds], checklist: [...step.checklist] }
      : newRow(step, piece, undefined, step.checklist);
  });
  await store(tx, before, rows, changed, now);
  for (const { id, title, skill, sameDay, optional, checklist } of rows)
    if (changed.has(id) && was.has(id)) {
      // ticks are of lines by their place: of another list they would say what nobody looked at
      if (was.get(id)?.checklist.join('\n') !== checklist.join('\n')) await tx.delete(StepTick, { stepId: id });
      await tx.update(Step, id, { title, skill, sameDay, optional, checklist });
    }
}

const VERBS: Record<PathChange['kind'], string> = {
  leave_out: 'step.left_out',
  bring_back: 'step.brought_back',
  add: 'step.added',
  split: 'step.split',
  retime: 'step.retimed',
  pin: 'step.pinned',
};

function note(tx: Tx, viewer: Viewer, piece: Piece, change: PathChange, before: readonly Step[], now: InstantText): Promise<void> {
  const step = change.kind === 'bring_back' ? undefined : before.find(({ id }) => id === change.stepId);
  const title =
    change.kind === 'bring_back'
      ? change.route.find(({ key }) => key === change.key)?.title
      : change.kind === 'add'
        ? change.step.title
        : step?.title;
  const more =
    change.kind === 'split'
      ? { to: change.step.title }
      : change.kind === 'pin'
        ? { from: step?.pinnedFinishOn ?? null, to: change.finishOn }
        : change.kind === 'retime'
          ? { days: { from: step?.spanDays, to: change.spanDays }, minutes: { from: step?.effortMinutes, to: change.effortMinutes } }
          : {};
  return recordActivity(tx, {
    clientId: piece.clientId,
    thing: 'piece',
    thingId: piece.id,
    verb: change.kind === 'pin' && change.finishOn === null ? 'step.unpinned' : VERBS[change.kind],
    actor: viewer.name,
    detail: { step: title ?? '', ...more },
    at: now,
  });
}

/** Whoever had a step that is left out need not wait for it. */
export async function tellGone(app: App, tx: Tx, viewer: Viewer, piece: Piece, step: Step): Promise<void> {
  await untell(tx, stepKey(step));
  if (step.doerId !== null && step.doerId !== viewer.personId)
    await tell(app, tx, step.doerId, {
      clientId: piece.clientId,
      heading: `Left out: ${step.title}, ${piece.title}`,
      text: `“${step.title}” of “${piece.title}” is left out: there is nothing to do for it.`,
      path: `/pieces/${piece.id}`,
      key: stepKey(step),
    });
}

/** Whoever has a step hears by when it is wanted now; let go of before they heard, nobody hears anything. */
async function tellPinned(
  app: App,
  tx: Tx,
  viewer: Viewer,
  piece: Piece,
  before: readonly Step[],
  changes: readonly PathChange[],
): Promise<void> {
  for (const change of changes) {
    if (change.kind !== 'pin') continue;
    const key = `pin:${change.stepId}`;
    const step = before.find(({ id }) => id === change.stepId);
    if (change.finishOn === null) await untell(tx, key);
    else if (step?.doerId && step.doerId !== viewer.personId) {
      const on = dayInWords(change.finishOn);
      await tell(app, tx, step.doerId, {
        clientId: piece.clientId,
        heading: `Wanted by ${on}: ${step.title}, ${piece.title}`,
        text: `“${step.title}” of “${piece.title}” is to be finished by ${on}.`,
        path: `/pieces/${piece.id}`,
        key,
      });
    }
  }
}

/** Steps that waited and can start now; where nothing is left to do, whoever decides. */
export async function tellStarted(app: App, tx: Tx, viewer: Viewer, piece: Piece, before: readonly Step[]): Promise<void> {
  const after = await stepsOf(tx, piece.id);
  const could = new Set(before.filter((step) => isAvailable(step, before)).map(({ id }) => id));
  const because = `The path of “${piece.title}” was changed.`;
  for (const step of after)
    if (step.finishedOn === null && !could.has(step.id) && isAvailable(step, after)) await tellNext(app, tx, viewer, piece, because, step);
  const isDone = (steps: readonly Step[]) => steps.every(({ finishedOn }) => finishedOn !== null);
  if (isDone(after) && !isDone(before)) await tellDecider(app, tx, viewer, piece);
}
