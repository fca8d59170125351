import { fail, getDay, ok, untitledPiece, type Content, type InstantText, type Result } from '@zesting/core';
import type { BeginPieceBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { recordActivity } from '../../../platform/activity.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Outlooks, replan } from '../../planning/index.js';
import { createPiece, giveFirst } from '../../production/index.js';
import { Placement } from '../entities/placement.entity.js';
import { setDate, usualTime, type DateFailure } from './placement-store.js';

export type BeginFailure =
  | DateFailure
  | {
      code:
        | 'route.unknown'
        | 'route.archived'
        | 'channel.unknown'
        | 'pillar.unknown'
        | 'step.not_optional'
        | 'client.archived'
        | 'piece.unknown';
    };

/**
 * Begins a piece by hand, without a request. One without a title is called by its format and day until it has one. Where it is to be
 * pencilled, it stands on its channels on the wished day at their usual times.
 * @returns the piece's id
 */
export async function beginPiece(app: App, viewer: Viewer, clientId: string, body: BeginPieceBody): Promise<Result<string, BeginFailure>> {
  const outlooks = body.giveFirst ? await Outlooks.load(app) : null;
  return app.write<string, BeginFailure>(async (tx, now) => {
    const piece = await putPiece(tx, viewer, clientId, body, now);
    if (piece.ok && outlooks) await giveFirst(app, tx, viewer, { id: piece.value, clientId }, outlooks, now);
    return piece;
  });
}

/** What is not said by whoever begins a piece. */
export interface PutOptions {
  /** the time at which it stands on its channels; without it the usual one of each */
  readonly at?: string | undefined;
  /** what it begins with; without it what it is begun from, or nothing */
  readonly content?: Content;
}

/** The same in the caller's transaction. */
export async function putPiece(
  tx: Tx,
  viewer: Pick<Viewer, 'name'>,
  clientId: string,
  body: BeginPieceBody,
  now: InstantText,
  { at, content }: PutOptions = {},
): Promise<Result<string, BeginFailure>> {
  const [client] = await rowsOf<{ archived: boolean }>(tx, 'select archived_at is not null as archived from clients where id = $1', [
    clientId,
  ]);
  if (client?.archived) return fail({ code: 'client.archived' });
  const [route] = await rowsOf<{ archived: boolean; format: string }>(
    tx,
    'select r.archived_at is not null as archived, f.name as format from routes r join formats f on f.id = r.format_id where r.id = $1',
    [body.routeId],
  );
  if (route?.archived) return fail({ code: 'route.archived' });
  const piece = await createPiece(
    tx,
    {
      clientId,
      requestId: null,
      routeId: body.routeId,
      pillarId: body.pillarId ?? null,
      purpose: body.purpose ?? null,
      title: body.title?.trim() || untitledPiece(route?.format ?? '', body.wishOn == null ? null : getDay(body.wishOn)),
      notes: body.notes ?? '',
      wishOn: body.wishOn ?? null,
      channelIds: body.channelIds,
      leaveOut: body.leaveOut ?? [],
      fromId: body.fromId ?? null,
      ...(content ? { content } : {}),
      actor: viewer.name,
    },
    now,
  );
  if (!piece.ok || !body.isPencilled || !body.wishOn) return piece;
  const pencilled = await pencil(tx, viewer, clientId, piece.value, body.wishOn, now, at);
  return pencilled.ok ? piece : pencilled;
}

/** Puts every placement of a new piece on a day. A usual time that the clock jumps over, or that has passed, refuses it. */
async function pencil(
  tx: Tx,
  viewer: Pick<Viewer, 'name'>,
  clientId: string,
  pieceId: string,
  on: string,
  now: InstantText,
  at?: string,
): Promise<Result<null, DateFailure>> {
  const placements = await tx.findBy(Placement, { pieceId });
  for (const placement of placements) {
    const put = setDate(placement, on, at ?? (await usualTime(tx, placement.channelId)), now);
    if (!put.ok) return put;
  }
  await tx.save(placements);
  await recordActivity(tx, {
    clientId,
    thing: 'piece',
    thingId: pieceId,
    verb: 'placement.pencilled',
    actor: viewer.name,
    detail: { to: { on, ...(at === undefined ? {} : { at }) } },
    at: now,
  });
  await replan(tx, [pieceId], now);
  return ok(null);
}
