import { fail, isByClient, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { tell } from '../../notices/index.js';
import { lockStep } from '../piece-store.js';
import { whoFor } from './assign-step.js';
import { noteStep } from './do-step.js';

export type TakeWithFailure = {
  code:
    'http.changed_meanwhile' | 'person.unknown' | 'person.barred' | 'step.already_finished' | 'step.client_decides' | 'step.with_nobody';
};

/**
 * Names somebody who takes a step together with its doer, to learn it, or nobody (null). They see the piece and hear of it; the step's hours stay its doer's,
 * and only the doer hands it in.
 * @param version what the step was at when it was looked at
 */
export function takeWith(
  app: App,
  viewer: Viewer,
  stepId: string,
  personId: string | null,
  version: number,
): Promise<Result<null, TakeWithFailure>> {
  return app.write<null, TakeWithFailure>(async (tx, now) => {
    const { piece, step } = await lockStep(tx, stepId);
    if (isByClient(step.kind)) return fail({ code: 'step.client_decides' });
    if (step.finishedOn !== null) return fail({ code: 'step.already_finished' });
    if (step.withId === personId) return ok(null);
    if (step.version !== version) return fail({ code: 'http.changed_meanwhile' });
    if (personId !== null && (step.doerId === null || step.doerId === personId)) return fail({ code: 'step.with_nobody' });
    const person = await whoFor(tx, piece.clientId, personId);
    if (!person.ok) return person;
    Object.assign(step, { withId: personId, version: step.version + 1 });
    await tx.save(step);
    await noteStep(tx, piece, viewer, 'step.taken_with', step, now, { to: person.value?.name ?? null });
    if (personId !== null && personId !== viewer.personId)
      await tell(app, tx, personId, {
        clientId: piece.clientId,
        heading: `${step.title}: ${piece.title}`,
        text: `You take “${step.title}” of “${piece.title}” together with whoever does it.`,
        path: `/pieces/${piece.id}`,
        key: `with:${step.id}`,
      });
    return ok(null);
  });
}
