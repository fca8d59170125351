import { randomUUID } from 'node:crypto';
import {
  asksClient,
  digestParts,
  EMPTY_CHANNEL_PART,
  EMPTY_SHARED_PART,
  fail,
  ok,
  withoutSteps,
  type Content,
  type InstantText,
  type Purpose,
  type Result,
  type RouteStep,
  type SignOffPolicy,
} from '@zesting/core';
import { recordActivity } from '../../../platform/activity.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Event } from '../../../platform/events.js';
import { findRoute, replan } from '../../planning/index.js';
import { PieceReference } from '../entities/piece-reference.entity.js';
import { PieceRequest } from '../entities/piece-request.entity.js';
import { Piece } from '../entities/piece.entity.js';
import { Step } from '../entities/step.entity.js';
import { checkChannels } from '../piece-store.js';

export interface NewPiece {
  readonly clientId: string;
  /** what it answers; null: begun by hand */
  readonly requestId: string | null;
  readonly routeId: string;
  readonly pillarId: string | null;
  /** what it asks of people; without it nothing is said */
  readonly purpose?: Purpose | null;
  readonly title: string;
  readonly notes: string;
  readonly wishOn: string | null;
  readonly channelIds: readonly string[];
  /** keys of optional steps that this piece does without */
  readonly leaveOut?: readonly string[];
  /** a piece of the same client whose content it begins with */
  readonly fromId?: string | null;
  /** what it begins with instead; what it was begun from is at hand all the same */
  readonly content?: Content;
  readonly actor: string;
}

type Failure =
  { code: 'step.not_optional' } | { code: 'route.unknown' } | { code: 'channel.unknown' } | { code: 'pillar.unknown' | 'piece.unknown' };

/** A piece was made, and is to stand on these channels. Whoever listens has done so when it is planned. */
export const pieceMade = new Event<{ readonly id: string; readonly clientId: string; readonly channelIds: readonly string[] }>();

/** Makes a piece with the steps of its route and an undated placement on each channel, and plans it. Inside the caller's transaction. */
export async function createPiece(tx: Tx, wanted: NewPiece, now: InstantText): Promise<Result<string, Failure>> {
  const route = await findRoute(tx, wanted.routeId);
  if (!route.ok) return route;
  const channels = await checkChannels(tx, wanted.clientId, wanted.channelIds);
  if (!channels.ok) return channels;
  if (wanted.pillarId !== null) {
    const pillars = await rowsOf(tx, 'select 1 from pillars where id = $1 and client_id = $2 and archived_at is null', [
      wanted.pillarId,
      wanted.clientId,
    ]);
    if (pillars.length === 0) return fail({ code: 'pillar.unknown' });
  }
  const steps = await stepsFor(tx, wanted, route.value.steps);
  if (!steps) return fail({ code: 'step.not_optional' });
  const id = randomUUID();
  const from = wanted.fromId ? await tx.findOneBy(Piece, { id: wanted.fromId, clientId: wanted.clientId }) : null;
  if (wanted.fromId && !from) return fail({ code: 'piece.unknown' });
  const content = wanted.content ?? {
    shared: from?.content.shared ?? EMPTY_SHARED_PART,
    channels: Object.fromEntries(
      wanted.channelIds.map((channelId) => [channelId, from?.content.channels[channelId] ?? EMPTY_CHANNEL_PART]),
    ),
  };
  await tx.insert(Piece, {
    id,
    clientId: wanted.clientId,
    routeId: route.value.id,
    routeVersion: route.value.version,
    formatId: route.value.format_id,
    pillarId: wanted.pillarId,
    purpose: wanted.purpose ?? null,
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
  if (from) {
    // what it was begun from may show files of pieces before it
    const before = await tx.findBy(PieceReference, { pieceId: from.id });
    for (const ofPieceId of [from.id, ...before.map((one) => one.ofPieceId)]) await tx.insert(PieceReference, { pieceId: id, ofPieceId });
  }
  if (wanted.requestId !== null) await tx.insert(PieceRequest, { pieceId: id, requestId: wanted.requestId, made: true });
  await addSteps(tx, id, steps);
  await pieceMade.tell(tx, { id, clientId: wanted.clientId, channelIds: wanted.channelIds }, now);
  await recordActivity(tx, {
    clientId: wanted.clientId,
    thing: 'piece',
    thingId: id,
    verb: 'piece.created',
    actor: wanted.actor,
    detail: { title: wanted.title, ...(from ? { from: from.title } : {}) },
    at: now,
  });
  await replan(tx, [id], now);
  return ok(id);
}

/** The route's steps for this piece: without those left out, and without sign-off where the agency decides. Undefined: one is not optional. */
async function stepsFor(tx: Tx, wanted: NewPiece, steps: readonly RouteStep[]): Promise<RouteStep[] | undefined> {
  const leaveOut = wanted.leaveOut ?? [];
  if (leaveOut.some((key) => !steps.some((step) => step.key === key && step.optional))) return undefined;
  const [client] = await rowsOf<{ policy: SignOffPolicy }>(tx, 'select policy from clients where id = $1', [wanted.clientId]);
  const unasked = client && !asksClient(client.policy) ? steps.filter((step) => step.kind === 'sign_off').map((step) => step.key) : [];
  return withoutSteps(steps, [...leaveOut, ...unasked]);
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
      withId: null,
      spanDays: step.spanDays,
      effortMinutes: step.effortMinutes,
      remainingMinutes: null,
      sameDay: step.sameDay ?? false,
      optional: step.optional ?? false,
      checklist: [...(step.checklist ?? [])],
      predecessorIds: step.after.flatMap((key) => ids.get(key) ?? []),
      position,
      round: 1,
      startedOn: null,
      finishedOn: null,
      remark: null,
      assignedOn: null,
    })),
  );
}
