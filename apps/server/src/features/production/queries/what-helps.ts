import { addDays, countWorkingDays, getDay, spanKept, type HelpChange, type HelpStep } from '@zesting/core';
import type { MendChangeShape, MendsShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { dayNear } from '../../../platform/time/day-near.js';
import { ableFor, AGENCY_KEY, helpsFor, loadCalendars, isClientsStep } from '../../planning/index.js';
import { namesOf, othersOf } from './path-preview.js';

/** Further back nobody’s days off are known, and habits were others. */
const HISTORY_DAYS = 365;
/** Of each step, so many of the latest finished ones are looked at. */
const HISTORY_STEPS = 100;

type Kept = NonNullable<ReturnType<typeof spanKept>>;

/** The smallest changes that would bring a late piece back, each with what it does to others. */
export async function whatHelpsPiece(app: App, viewer: Viewer, pieceId: string): Promise<MendsShape> {
  const [able, kept, versions] = [await ableFor(app, { pieceId }), await spansKept(app, pieceId), await versionsOf(app, pieceId)];
  const shortest = Object.fromEntries([...kept].map(([stepId, { spanDays }]) => [stepId, spanDays]));
  const found = await helpsFor(app, { pieceId, able, shortest });
  if (!found) return { isPlanned: false, lateDays: 0, danger: null, helps: [], laterOn: null, tried: 0, possible: 0 };
  const { helps, steps } = found;
  const doers = helps.helps.flatMap(({ changes }) => changes.flatMap((change) => (change.kind === 'give' ? [change] : [])));
  const names = await namesOf(app, doers);
  const change = (one: HelpChange): MendChangeShape => changeShape(one, steps, versions, names, kept);
  return {
    isPlanned: true,
    lateDays: helps.now.lateDays,
    danger: helps.now.plan.danger,
    helps: await Promise.all(
      helps.helps.map(async ({ changes, lateDays, others }) => ({
        changes: changes.map(change),
        lateDays,
        ...(await othersOf(app, viewer, others)),
      })),
    ),
    laterOn: helps.laterOn,
    tried: helps.tried,
    possible: helps.possible,
  };
}

function changeShape(
  change: HelpChange,
  steps: readonly HelpStep[],
  versions: ReadonlyMap<string, number>,
  names: ReadonlyMap<string, string>,
  kept: ReadonlyMap<string, Kept>,
): MendChangeShape {
  const step = steps.find(({ id }) => id === change.stepId);
  const history = change.kind === 'retime' ? kept.get(change.stepId) : undefined;
  return {
    kind: change.kind,
    stepId: change.stepId,
    stepTitle: step?.title ?? '',
    version: versions.get(change.stepId) ?? 1,
    wasDays: step?.spanDays ?? 1,
    spanDays: change.kind === 'retime' ? change.spanDays : null,
    effortMinutes: change.kind === 'retime' ? change.effortMinutes : null,
    finishOn: change.kind === 'pin' ? change.finishOn : null,
    personId: change.kind === 'give' && change.doer !== AGENCY_KEY ? change.doer : null,
    personName: change.kind === 'give' ? (names.get(change.doer) ?? null) : null,
    kept: history?.kept ?? null,
    keptOf: history?.of ?? null,
  };
}

/** By open step, the span that finished ones of the same name and format kept to. */
async function spansKept(app: App, pieceId: string): Promise<Map<string, Kept>> {
  const now = app.clock.now();
  const book = await loadCalendars(app.manager, now);
  const rows = await app.read<{ step_id: string; doer_id: string; started_on: string; finished_on: string }>(
    `select s.id as step_id, h.doer_id, h.started_on, h.finished_on
     from steps s join pieces p on p.id = s.piece_id
     cross join lateral (select o.doer_id, o.started_on, o.finished_on from pieces i join steps o on o.piece_id = i.id
       where i.format_id = p.format_id and o.key = s.key and o.kind = s.kind and o.finished_on >= $2 and o.doer_id is not null and o.round = 1
       order by o.finished_on desc, o.id limit ${HISTORY_STEPS}) h
     where s.piece_id = $1 and s.finished_on is null and not ${isClientsStep('s')} and s.round = 1`,
    [pieceId, addDays(dayNear(now), -HISTORY_DAYS)],
  );
  const took = new Map<string, number[]>();
  for (const row of rows) {
    const doer = book.doers[row.doer_id];
    if (!doer) continue;
    const days = Math.max(1, countWorkingDays(doer.calendar, getDay(row.started_on), getDay(row.finished_on)));
    took.set(row.step_id, [...(took.get(row.step_id) ?? []), days]);
  }
  return new Map(
    [...took].flatMap(([stepId, days]) => {
      const kept = spanKept(days);
      return kept ? [[stepId, kept] as const] : [];
    }),
  );
}

async function versionsOf(app: App, pieceId: string): Promise<Map<string, number>> {
  const rows = await app.read<{ id: string; version: number }>('select id, version from steps where piece_id = $1', [pieceId]);
  return new Map(rows.map(({ id, version }) => [id, version]));
}
