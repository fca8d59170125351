import type { EditObstacleBody, ObstacleBody } from '@zesting/contract';
import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import { managersOf, tell, untell } from '../../notices/index.js';
import { replan } from '../../planning/index.js';
import { lockPiece, stepsOf, todayOf, type Piece, type Step } from '../../production/index.js';
import { teamOf } from '../../team-notes/index.js';
import { Obstacle } from '../entities/obstacle.entity.js';

/** What notices of an obstacle stand under. */
export const obstacleKey = (id: string): string => `obstacle:${id}`;

type Refused = { code: 'step.not_on_path' | 'step.already_finished' | 'person.unknown' | 'obstacle.until_in_past' };

/** Says what stands in the way. Whose it is hears it, and those who manage the client; what waits for it is predicted anew. */
export function raiseObstacle(app: App, viewer: Viewer, pieceId: string, body: ObstacleBody): Promise<Result<string, Refused>> {
  return app.write<string, Refused>(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    const steps = await stepsOf(tx, pieceId);
    const step = steps.find(({ id }) => id === body.stepId);
    if (body.stepId && !step) return fail({ code: 'step.not_on_path' });
    if (step ? step.finishedOn !== null : steps.every(({ finishedOn }) => finishedOn !== null))
      return fail({ code: 'step.already_finished' });
    const said = await checked(tx, piece, steps, step, body, now);
    if (!said.ok) return said;
    const raised = { clientId: piece.clientId, pieceId, stepId: step?.id ?? null, raisedBy: viewer.personId, raisedAt: now };
    const obstacle = await tx.save(tx.create(Obstacle, { ...raised, ...said.value, settledBy: null, settledAt: null, settledWords: '' }));
    await note(tx, viewer.name, piece, 'obstacle.raised', obstacle, now, step?.title);
    await tellOf(app, tx, viewer, piece, obstacle, step?.title, now);
    await replan(tx, [pieceId], now);
    return ok(obstacle.id);
  });
}

type EditRefused = Refused | { code: 'obstacle.settled' | 'http.changed_meanwhile' };

/** Says it in other words, that it is somebody else's, or until when it stands. */
export function editObstacle(
  app: App,
  viewer: Viewer,
  obstacleId: string,
  body: EditObstacleBody,
  version: number,
): Promise<Result<null, EditRefused>> {
  return app.write<null, EditRefused>(async (tx, now) => {
    const { piece, obstacle } = await lockObstacle(tx, obstacleId);
    if (obstacle.settledAt !== null) return fail({ code: 'obstacle.settled' });
    if (obstacle.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const steps = await stepsOf(tx, piece.id);
    const step = steps.find(({ id }) => id === obstacle.stepId);
    const said = await checked(tx, piece, steps, step, body, now, obstacle);
    if (!said.ok) return said;
    const { whose, personId } = obstacle;
    Object.assign(obstacle, said.value);
    await tx.save(obstacle);
    await note(tx, viewer.name, piece, 'obstacle.changed', obstacle, now, step?.title);
    if (whose !== obstacle.whose || personId !== obstacle.personId) {
      await untell(tx, obstacleKey(obstacleId));
      await tellOf(app, tx, viewer, piece, obstacle, step?.title, now);
    }
    await replan(tx, [piece.id], now);
    return ok(null);
  });
}

/** What is said of an obstacle, where it can be: somebody who sees the piece, a day that is not gone where the work is done. What stood before may stay. */
async function checked(
  tx: Tx,
  piece: Piece,
  steps: readonly Step[],
  step: Step | undefined,
  body: EditObstacleBody,
  now: InstantText,
  before?: Obstacle,
): Promise<Result<Pick<Obstacle, 'words' | 'whose' | 'personId' | 'untilOn'>, Refused>> {
  const personId = body.whose === 'person' ? (body.personId ?? null) : null;
  if (body.whose === 'person' && (personId === null || personId !== before?.personId)) {
    const team = await teamOf(tx, { pieceId: piece.id });
    if (!team.some((mate) => mate.personId === personId)) return fail({ code: 'person.unknown' });
  }
  const untilOn = body.untilOn ?? null;
  const first = step ?? steps.find(({ finishedOn }) => finishedOn === null);
  if (untilOn !== null && untilOn !== before?.untilOn && first && untilOn < (await todayOf(tx, first, now)))
    return fail({ code: 'obstacle.until_in_past' });
  return ok({ words: body.words.trim(), whose: body.whose, personId, untilOn });
}

/** Loads an obstacle, its piece locked first. */
export async function lockObstacle(tx: Tx, id: string): Promise<{ piece: Piece; obstacle: Obstacle }> {
  const { pieceId } = await tx.findOneByOrFail(Obstacle, { id });
  const piece = await lockPiece(tx, pieceId);
  return { piece, obstacle: await tx.findOneByOrFail(Obstacle, { id }) };
}

async function tellOf(
  app: App,
  tx: Tx,
  viewer: Viewer,
  piece: Piece,
  { id, words, whose, personId }: Obstacle,
  step: string | undefined,
  now: InstantText,
): Promise<void> {
  const of = step === undefined ? `“${piece.title}”` : `“${step}” of “${piece.title}”`;
  const about = { clientId: piece.clientId, path: `/pieces/${piece.id}`, key: obstacleKey(id) };
  const heading = `In the way: ${piece.title}`;
  if (personId !== null && personId !== viewer.personId)
    await tell(app, tx, personId, {
      ...about,
      heading,
      text: `${viewer.name} waits for you: “${words}” stands in the way of ${of}.`,
    });
  const waits = { person: 'a colleague', client: 'the client', outside: 'somebody outside' };
  for (const manager of await managersOf(tx, piece.clientId, now))
    if (manager.id !== viewer.personId && manager.id !== personId)
      await tell(app, tx, manager.id, { ...about, heading, text: `“${words}” stands in the way of ${of}, and waits for ${waits[whose]}.` });
}

export const note = (
  tx: Tx,
  actor: string,
  piece: Piece,
  verb: string,
  { words }: Obstacle,
  at: InstantText,
  step?: string,
): Promise<void> =>
  recordActivity(tx, {
    clientId: piece.clientId,
    thing: 'piece',
    thingId: piece.id,
    verb,
    actor,
    detail: { ...(step === undefined ? {} : { step }), remark: words },
    at,
  });
