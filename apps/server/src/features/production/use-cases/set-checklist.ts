import { fail, isByClient, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { StepTick } from '../entities/step-tick.entity.js';
import { lockStep } from '../piece-store.js';
import { noteStep } from './do-step.js';

export type ChecklistFailure = { code: 'http.changed_meanwhile' | 'step.already_finished' | 'step.client_decides' };

/**
 * Says what is looked at before one step of one piece is handed in. A line that stays keeps its tick, wherever it stands now.
 * @param version what the step was at when it was looked at
 */
export function setChecklist(
  app: App,
  viewer: Viewer,
  stepId: string,
  given: readonly string[],
  version: number,
): Promise<Result<null, ChecklistFailure>> {
  return app.write<null, ChecklistFailure>(async (tx, now) => {
    const { piece, step } = await lockStep(tx, stepId);
    if (isByClient(step.kind)) return fail({ code: 'step.client_decides' });
    if (step.finishedOn !== null) return fail({ code: 'step.already_finished' });
    if (step.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const [before, lines] = [step.checklist, [...new Set(given.map((line) => line.trim()))].filter((line) => line !== '')];
    if (before.join('\n') === lines.join('\n')) return ok(null);
    const ticks = await tx.findBy(StepTick, { stepId });
    await tx.delete(StepTick, { stepId });
    const placed = ticks.map((tick) => ({ ...tick, position: lines.indexOf(before[tick.position] ?? '') }));
    // a route may say a line twice, which then is one
    const kept = new Map(placed.flatMap((tick) => (tick.position >= 0 ? [[tick.position, tick] as const] : [])));
    for (const tick of kept.values()) await tx.insert(StepTick, tick);
    Object.assign(step, { checklist: lines, version: step.version + 1 });
    await tx.save(step);
    await noteStep(tx, piece, viewer, 'step.checklist_set', step, now, { checklist: { from: before, to: lines } });
    return ok(null);
  });
}
