import { fail, ok, type Result, type SignOffPolicy } from '@zesting/core';
import type { TakenAlongShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { findRoute, replan, routeAsOf } from '../../planning/index.js';
import { alongWith } from '../queries/along.js';
import { lockPiece, stepsOf } from '../piece-store.js';
import { asRow, storeAlong, tellGone, tellStarted } from './change-path.js';

type Refused = { code: 'http.changed_meanwhile' | 'route.unknown' | 'path.circular' | 'piece.other_route' };

/** Takes pieces along with their route, each by itself: what could not be is said, the others are. */
export async function takePiecesAlong(
  app: App,
  viewer: Viewer,
  routeId: string,
  pieceIds: readonly string[],
  version: number,
): Promise<TakenAlongShape> {
  const pieces: TakenAlongShape['pieces'] = [];
  for (const pieceId of new Set(pieceIds)) {
    const taken = await takePieceAlong(app, viewer, routeId, pieceId, version);
    pieces.push({ pieceId, problem: taken.ok ? null : taken.failure.code });
  }
  return { pieces };
}

/** What was begun meanwhile stays: it is reckoned anew under the piece's lock. Whoever had a step that goes hears it, and whoever can start now. */
const takePieceAlong = (app: App, viewer: Viewer, routeId: string, pieceId: string, version: number): Promise<Result<null, Refused>> =>
  app.write<null, Refused>(async (tx, now) => {
    const [known] = await rowsOf<{ route_id: string; policy: SignOffPolicy }>(
      tx,
      'select p.route_id, c.policy from pieces p join clients c on c.id = p.client_id where p.id = $1',
      [pieceId],
    );
    if (known?.route_id !== routeId) return fail({ code: 'piece.other_route' });
    const piece = await lockPiece(tx, pieceId);
    // no one changes the route while pieces follow it
    await rowsOf(tx, 'select 1 from routes where id = $1 for share', [routeId]);
    const route = await findRoute(tx, routeId);
    if (!route.ok) return route;
    if (route.value.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const before = await stepsOf(tx, pieceId);
    const base = await routeAsOf(tx, routeId, piece.routeVersion);
    const taken = alongWith(before.map(asRow), base, route.value.steps, known.policy);
    if (!taken.ok) return taken;
    const { steps, changes } = taken.value;
    piece.routeVersion = version;
    await tx.save(piece);
    if (changes.length === 0) return ok(null);
    await storeAlong(tx, piece, before, steps, new Set(changes.map(({ stepId }) => stepId)), now);
    await recordActivity(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: piece.id,
      verb: 'piece.taken_along',
      actor: viewer.name,
      detail: { route: route.value.name, steps: changes.map(({ kind, title, fields }) => ({ kind, title, fields })) },
      at: now,
    });
    for (const step of before.filter(({ id }) => !steps.some((other) => other.id === id))) await tellGone(app, tx, viewer, piece, step);
    await replan(tx, [pieceId], now);
    await tellStarted(app, tx, viewer, piece, before);
    return ok(null);
  });
