import {
  EMPTY_CHANNEL_PART,
  EMPTY_SHARED_PART,
  fail,
  getDay,
  mayGoAgain,
  ok,
  type Content,
  type InstantText,
  type Result,
} from '@zesting/core';
import type { FillSlotBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { putAgain, putPiece, putPlacement, type AgainFailure, type BeginFailure, type MoveFailure } from '../../calendar/index.js';
import { stockOfPiece } from '../../evergreen/index.js';
import { lockPiece } from '../../production/index.js';
import { StoredRule } from '../entities/rhythm-rule.entity.js';
import type { Idea } from '../entities/idea.entity.js';
import { wordsOfIdea } from '../queries/ideas.js';
import { blackoutsBetween, isTaken, rhythmsOf, slotsBetween, type ClientRhythm, type WantedSlot } from '../queries/rhythm-of.js';
import { lockIdea, useIdea } from './ideas.js';

export type FillFailure =
  | BeginFailure
  | MoveFailure
  | AgainFailure
  | {
      code:
        | 'slot.unknown'
        | 'slot.taken'
        | 'slot.blacked_out'
        | 'slot.other_channel'
        | 'slot.no_route'
        | 'idea.unknown'
        | 'idea.used'
        | 'idea.dropped'
        | 'idea.combined'
        | 'placement.dated'
        | 'piece.unknown'
        | 'piece.rests';
    };

/**
 * Fills one slot of a client: an idea becomes a planned piece there, a piece that has no day on that channel gets it, one that lasts goes out there
 * again, or a piece is planned that is still to be thought of. Whoever fills the same rule's slots waits, so that none is filled twice.
 * @returns the piece that stands there
 */
export function fillSlot(app: App, viewer: Viewer, clientId: string, body: FillSlotBody): Promise<Result<string, FillFailure>> {
  return app.write<string, FillFailure>(async (tx, now) => {
    const rule = await tx.findOne(StoredRule, { where: { id: body.ruleId, clientId }, lock: { mode: 'pessimistic_write' } });
    if (!rule) return fail({ code: 'slot.unknown' });
    const open = await openSlot(tx, clientId, body, now);
    if (!open.ok) return open;
    if (body.placementId !== undefined) return putThere(app, tx, viewer, clientId, body.placementId, open.value, now);
    if (body.againId !== undefined) return putAgainThere(app, tx, viewer, clientId, body.againId, open.value, now);
    const idea = body.ideaId === undefined ? null : await lockIdea(tx, body.ideaId);
    const refused = idea && ideaRefused(viewer, idea, clientId);
    if (refused) return fail(refused);
    const piece = await planThere(tx, viewer, clientId, body, open.value, idea, now);
    if (piece.ok && idea) await useIdea(tx, viewer, idea, clientId, piece.value, now);
    return piece;
  });
}

/** The slot that is meant, where it is one and nothing stands in it. */
async function openSlot(
  tx: Tx,
  clientId: string,
  { ruleId, on }: FillSlotBody,
  now: InstantText,
): Promise<Result<WantedSlot, FillFailure>> {
  const day = getDay(on);
  const [rhythm] = await rhythmsOf(tx, [clientId], day, now);
  const slot = rhythm && slotsBetween(rhythm, day, day).find((one) => one.ruleId === ruleId);
  if (!rhythm || !slot) return fail({ code: 'slot.unknown' });
  if ((await blackoutsBetween(tx, [clientId], day, day)).get(clientId)?.has(day)) return fail({ code: 'slot.blacked_out' });
  return (await isTaken(tx, rhythm satisfies ClientRhythm, slot)) ? fail({ code: 'slot.taken' }) : ok(slot);
}

function ideaRefused(viewer: Viewer, idea: Idea, clientId: string): FillFailure | null {
  if (idea.clientId !== null && idea.clientId !== clientId) return { code: 'idea.unknown' };
  if (!viewer.clientIds.includes(clientId)) return { code: 'idea.unknown' };
  return idea.state === 'open' ? null : { code: `idea.${idea.state}` };
}

interface Meant {
  readonly clientId: string;
  readonly channelId: string;
  readonly pieceId: string;
  readonly on: string | null;
}

/** The placement that is meant for a slot, where it is of the client and on the slot's channel. */
async function placementFor(tx: Tx, clientId: string, placementId: string, slot: WantedSlot): Promise<Result<Meant, FillFailure>> {
  const [placement] = await rowsOf<Meant>(
    tx,
    'select client_id as "clientId", channel_id as "channelId", piece_id as "pieceId", on_day as on from placements where id = $1',
    [placementId],
  );
  if (placement?.clientId !== clientId) return fail({ code: 'piece.unknown' });
  return placement.channelId === slot.channelId ? ok(placement) : fail({ code: 'slot.other_channel' });
}

/** Gives a piece's undated placement the day and time of a slot on its channel. */
async function putThere(
  app: App,
  tx: Tx,
  viewer: Viewer,
  clientId: string,
  placementId: string,
  slot: WantedSlot,
  now: InstantText,
): Promise<Result<string, FillFailure>> {
  const found = await placementFor(tx, clientId, placementId, slot);
  if (!found.ok) return found;
  const placement = found.value;
  if (placement.on !== null) return fail({ code: 'placement.dated' });
  const moved = await putPlacement(app, tx, viewer, placementId, { on: slot.on, at: slot.at }, null, now);
  return moved.ok ? ok(placement.pieceId) : moved;
}

/**
 * Gives a piece that lasts and was out on a slot's channel one more placement there. Whoever places the same piece again waits, so that its rest is kept
 * and it goes out no more often than it may.
 */
async function putAgainThere(
  app: App,
  tx: Tx,
  viewer: Viewer,
  clientId: string,
  placementId: string,
  slot: WantedSlot,
  now: InstantText,
): Promise<Result<string, FillFailure>> {
  const found = await placementFor(tx, clientId, placementId, slot);
  if (!found.ok) return found;
  const placement = found.value;
  await lockPiece(tx, placement.pieceId);
  const row = (await stockOfPiece(tx, placement.pieceId)).find(({ channelId }) => channelId === slot.channelId);
  if (!row || !mayGoAgain(slot.on, row.days, row.rule)) return fail({ code: 'piece.rests' });
  const put = await putAgain(app, tx, viewer, placementId, { channelId: slot.channelId, on: slot.on, at: slot.at }, now);
  return put.ok ? ok(placement.pieceId) : put;
}

/** Plans a piece for a slot: by what the idea says, and where it says nothing by what the slot wants. */
async function planThere(
  tx: Tx,
  viewer: Viewer,
  clientId: string,
  body: FillSlotBody,
  slot: WantedSlot,
  idea: Idea | null,
  now: InstantText,
): Promise<Result<string, FillFailure>> {
  const routeId = body.routeId ?? (await routeOf(tx, idea?.formatId ?? slot.formatId));
  if (routeId === undefined) return fail({ code: 'slot.no_route' });
  const content = await tagged(tx, slot);
  return putPiece(
    tx,
    viewer,
    clientId,
    {
      routeId,
      channelIds: [slot.channelId],
      title: body.title?.trim() || (idea?.title ?? ''),
      notes: idea ? await wordsOfIdea(tx, idea.id) : '',
      wishOn: slot.on,
      isPencilled: true,
      pillarId: idea?.pillarId ?? slot.pillarId,
      purpose: slot.purpose,
    },
    now,
    { at: slot.at, ...(content ? { content } : {}) },
  );
}

/** What a piece for a slot begins with: the tags that the rhythm has for it there. Undefined: with nothing. */
async function tagged(tx: Tx, { channelId, tagSetId }: WantedSlot): Promise<Content | undefined> {
  if (tagSetId === null) return undefined;
  const [set] = await rowsOf<{ tags: string[] }>(tx, 'select tags from tag_sets where id = $1 and archived_at is null', [tagSetId]);
  return set && { shared: EMPTY_SHARED_PART, channels: { [channelId]: { ...EMPTY_CHANNEL_PART, tags: set.tags } } };
}

/** The first route of a format. */
export async function routeOf(tx: Tx, formatId: string | null): Promise<string | undefined> {
  if (formatId === null) return undefined;
  const [route] = await rowsOf<{ id: string }>(
    tx,
    'select id from routes where format_id = $1 and archived_at is null order by name, id limit 1',
    [formatId],
  );
  return route?.id;
}
