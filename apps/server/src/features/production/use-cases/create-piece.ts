import { randomUUID } from 'node:crypto';
import { EMPTY_CHANNEL_PART, EMPTY_SHARED_PART, digestParts, fail, ok, type InstantText, type Result } from '@zesting/core';
import { record } from '../../../platform/activity.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { findRoute, replan, type RouteStep } from '../../planning/index.js';
import { Piece } from '../entities/piece.entity.js';
import { Step } from '../entities/step.entity.js';
import { checkChannels } from '../piece-store.js';

export interface NewPiece {
  readonly clientId: string;
  readonly requestId: string | null;
  readonly routeId: string;
  readonly pillarId: string | null;
  readonly title: string;
  readonly notes: string;
  readonly wishOn: string | null;
  readonly channelIds: readonly string[];
  readonly actor: string;
}

type Failure = { code: 'route.unknown' } | { code: 'channel.unknown' } | { code: 'pillar.unknown' };

/** Makes a piece with the steps of its route and an undated placement on each channel, and plans it. Inside the caller's transaction. */
export async function createPiece(tx: Tx, wanted: NewPiece, now: InstantText): Promise<Result<string, Failure>> {
  const route = await findRoute(tx, wanted.routeId);
  if (!route.ok) return route;
  const channels = await checkChannels(tx, wanted.clientId, wanted.channelIds);
  if (!channels.ok) return channels;
  if (wanted.pillarId !== null) {
    const pillars = await rowsOf(tx, 'select 1 from pillars where id = $1 and client_id = $2', [wanted.pillarId, wanted.clientId]);
    if (pillars.length === 0) return fail({ code: 'pillar.unknown' });
  }
  const id = randomUUID();
  const content = {
    shared: EMPTY_SHARED_PART,
    channels: Object.fromEntries(wanted.channelIds.map((channelId) => [channelId, EMPTY_CHANNEL_PART])),
  };
  await tx.insert(Piece, {
    id,
    clientId: wanted.clientId,
    requestId: wanted.requestId,
    routeId: route.value.id,
    formatId: route.value.format_id,
    pillarId: wanted.pillarId,
    title: wanted.title,
    notes: wanted.notes,
    wishOn: wanted.wishOn,
    shelved: false,
    round: 1,
    content,
    contentVersion: 1,
    digests: digestParts(wanted.clientId, id, content),
    version: 1,
    createdAt: now,
  });
  await addSteps(tx, id, route.value.steps);
  await tx.query(
    `insert into placements (piece_id, client_id, channel_id, zone, created_at, updated_at)
     select $1, $2, h.id, c.zone, $4, $4 from channels h join clients c on c.id = h.client_id where h.id = any($3)`,
    [id, wanted.clientId, wanted.channelIds, now],
  );
  await record(tx, {
    clientId: wanted.clientId,
    thing: 'piece',
    thingId: id,
    verb: 'piece.created',
    actor: wanted.actor,
    detail: { title: wanted.title },
    at: now,
  });
  await replan(tx, [id], now);
  return ok(id);
}

async function addSteps(tx: Tx, pieceId: string, routeSteps: readonly RouteStep[]): Promise<void> {
  const ids = new Map(routeSteps.map((step) => [step.key, randomUUID()]));
  await tx.insert(
    Step,
    routeSteps.map((step, position) => ({
      id: ids.get(step.key) ?? randomUUID(),
      pieceId,
      key: step.key,
      title: step.title,
      kind: step.kind,
      skill: step.skill,
      doerId: null,
      spanDays: step.spanDays,
      effortMinutes: step.effortMinutes,
      sameDay: step.sameDay ?? false,
      predecessorIds: step.after.flatMap((key) => ids.get(key) ?? []),
      position,
      round: 1,
      startedOn: null,
      finishedOn: null,
      remark: null,
    })),
  );
}
