import { fail, ok, type InstantText, type Result } from '@zesting/core';
import { IsNull } from 'typeorm';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import { tell, untell } from '../../notices/index.js';
import { replan } from '../../planning/index.js';
import { isAvailable, stepsOf, type Piece } from '../../production/index.js';
import { Obstacle } from '../entities/obstacle.entity.js';
import { lockObstacle, note, obstacleKey } from './raise.js';

/** Says that an obstacle is gone. Whoever can go on hears it; who has not heard of the obstacle yet hears nothing. */
export function settleObstacle(
  app: App,
  viewer: Viewer,
  obstacleId: string,
  words: string,
): Promise<Result<null, { code: 'obstacle.settled' }>> {
  return app.write<null, { code: 'obstacle.settled' }>(async (tx, now) => {
    const { piece, obstacle } = await lockObstacle(tx, obstacleId);
    if (obstacle.settledAt !== null) return fail({ code: 'obstacle.settled' });
    Object.assign(obstacle, { settledAt: now, settledBy: viewer.personId, settledWords: words.trim() });
    await tx.save(obstacle);
    await untell(tx, obstacleKey(obstacleId));
    await note(tx, viewer.name, piece, 'obstacle.settled', obstacle, now);
    await replan(tx, [piece.id], now);
    await tellFree(app, tx, viewer, piece, obstacle);
    return ok(null);
  });
}

/** Those who have a step at hand that it stopped, once nothing else stops it. */
async function tellFree(app: App, tx: Tx, viewer: Viewer, piece: Piece, gone: Obstacle): Promise<void> {
  const left = await tx.findBy(Obstacle, { pieceId: piece.id, settledAt: IsNull() });
  const steps = await stepsOf(tx, piece.id);
  for (const step of steps.filter((one) => one.finishedOn === null && isAvailable(one, steps))) {
    const isStopped = left.some(({ stepId }) => stepId === null || stepId === step.id);
    const wasStopped = gone.stepId === null || gone.stepId === step.id;
    if (!wasStopped || isStopped || step.doerId === null || step.doerId === viewer.personId) continue;
    await tell(app, tx, step.doerId, {
      clientId: piece.clientId,
      heading: `Out of the way: ${step.title}, ${piece.title}`,
      text: `“${gone.words}” does not stand in the way of “${step.title}” of “${piece.title}” any more.`,
      path: `/pieces/${piece.id}`,
      key: obstacleKey(gone.id),
    });
  }
}

/** A step that is finished has nothing in its way: what was goes with it. In the transaction that finishes it, which plans anew. */
export async function settleOfStep(tx: Tx, { id: stepId }: { readonly id: string }, now: InstantText): Promise<void> {
  const standing = await tx.findBy(Obstacle, { stepId, settledAt: IsNull() });
  for (const obstacle of standing) {
    obstacle.settledAt = now;
    await tx.save(obstacle);
    await untell(tx, obstacleKey(obstacle.id));
  }
}

/** A step goes from its path, and what stood in its way with it: who has not heard of it yet hears nothing. */
export async function forgetOfStep(tx: Tx, { id: stepId }: { readonly id: string }): Promise<void> {
  for (const { id } of await tx.findBy(Obstacle, { stepId })) await untell(tx, obstacleKey(id));
}
