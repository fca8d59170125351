import { fail, isByClient, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { StepTick } from '../entities/step-tick.entity.js';
import { lockStep } from '../piece-store.js';

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
    for (const tick of ticks) {
      const position = lines.indexOf(before[tick.position] ?? '');
      if (position >= 0) await tx.insert(StepTick, { ...tick, position });
    }
    Object.assign(step, { checklist: lines, version: step.version + 1 });
    await tx.save(step);
    await recordActivity(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: piece.id,
      verb: 'step.checklist_set',
      actor: viewer.name,
      detail: { step: step.title, checklist: { from: before, to: lines } },
      at: now,
    });
    return ok(null);
  });
}
