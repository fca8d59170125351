import { isByClient } from '@zesting/core';
import type { InstantText } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import type { Named, Outlooks } from '../../planning/index.js';
import { stepsOf } from '../piece-store.js';
import { giveStep } from './assign-step.js';

/**
 * Gives the steps of a new piece to those who usually do them for its client, else to those who are predicted to be free first, in the caller's transaction. Of several pieces, the next comes after the
 * hours that the one before takes. What cannot be given stays with nobody, as the desk says.
 * @param named who does a skill at this piece, by its name, before anybody else
 */
export async function giveFirst(
  app: App,
  tx: Tx,
  viewer: Viewer,
  piece: { readonly id: string; readonly clientId: string },
  outlooks: Outlooks,
  now: InstantText,
  named: Named = {},
): Promise<void> {
  const steps = await stepsOf(tx, piece.id);
  const keyOf = new Map(steps.map(({ id, key }) => [id, key]));
  const path = steps.map(({ key, title, kind, skill, spanDays, effortMinutes, sameDay, predecessorIds }) => ({
    key,
    title,
    kind,
    skill,
    spanDays,
    effortMinutes,
    sameDay,
    after: predecessorIds.flatMap((id) => keyOf.get(id) ?? []),
  }));
  for (const { id: key, doer: personId } of outlooks.take(path, piece.clientId, named)) {
    const step = steps.find((one) => one.key === key);
    if (step && !isByClient(step.kind)) await giveStep(app, tx, viewer, { stepId: step.id, personId }, now);
  }
}
