import { fail, ok, placementWorkDays, getDay, type PlacementState, type Result } from '@zesting/core';
import type { EnteringBody, FollowUpListBody } from '@zesting/contract';
import { randomUUID } from 'node:crypto';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, noteOfClient, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { lockPlacement } from '../../calendar/index.js';
import { clientKey, getDoer, loadCalendars, wantPredictionOf } from '../../planning/index.js';
import { FollowUpList, type FollowUpItem } from '../entities/follow-up-list.entity.js';
import { FollowUp, type FollowUpState } from '../entities/follow-up.entity.js';
import { whoCould } from '../queries/who-could.js';

export type EditListFailure = { code: 'http.changed_meanwhile' | 'follow_up.doer_unfit' };

/** Says what is done around everything that goes out on a channel. What is out already keeps what it was given. @param version 0 where there was none */
export function putFollowUpList(
  app: App,
  viewer: Pick<Viewer, 'name'>,
  channelId: string,
  { items }: FollowUpListBody,
  version: number,
): Promise<Result<null, EditListFailure>> {
  return app.write<null, EditListFailure>(async (tx, now) => {
    const [channel] = await rowsOf<{ clientId: string; name: string }>(
      tx,
      'select client_id as "clientId", name from channels where id = $1 for no key update',
      [channelId],
    );
    if (!channel) throw new Error('the channel went away');
    const list = await tx.findOneBy(FollowUpList, { channelId });
    if ((list?.version ?? 0) !== version) return fail({ code: 'http.changed_meanwhile' });
    const before = list?.items ?? [];
    const known = new Set(before.map(({ key }) => key));
    const kept = items.map(({ key, words, forDays, kind, ...rest }): FollowUpItem => {
      const isKnown = key !== undefined && known.delete(key); // a key that comes twice is that of the first
      return { key: isKnown ? key : randomUUID(), kind, words: words.trim(), forDays: kind === 'enter' ? 1 : forDays, ...rest };
    });
    const could = new Set((await whoCould(tx, channel.clientId)).map(({ personId }) => personId));
    // who was named before may stay named, though they could not be chosen any more
    for (const { personId } of before) if (personId !== null) could.add(personId);
    if (kept.some(({ personId }) => personId !== null && !could.has(personId))) return fail({ code: 'follow_up.doer_unfit' });
    const shown = (of: readonly FollowUpItem[]) => of.map(({ key: _, ...rest }) => rest);
    const detail = { channel: channel.name, ...changesBetween({ items: shown(before) }, { items: shown(kept) }) };
    await tx.save(tx.create(FollowUpList, { channelId, clientId: channel.clientId, items: kept, version: version + 1 }));
    await noteOfClient(tx, viewer, channel.clientId, 'channel.follow_ups_set', detail, now);
    await wantPredictionOf(tx, [...new Set([...before, ...kept].flatMap(({ personId }) => personId ?? []))]);
    return ok(null);
  });
}

/** Says that one is done or left out, or open again. Said twice, it stays with whoever said it first. */
export function settleFollowUp(app: App, viewer: Pick<Viewer, 'name'>, id: string, state: FollowUpState): Promise<Result<null, never>> {
  return app.write<null, never>(async (tx, now) => {
    const found = await tx.findOneOrFail(FollowUp, { where: { id }, lock: { mode: 'pessimistic_write' } });
    await settle(tx, viewer, found, state, now);
    return ok(null);
  });
}

export type EnterFailure = { code: 'http.changed_meanwhile' | 'follow_up.not_signed' };

/**
 * Says that a placement was put into its channel, or is not. It holds for its time and content as they are now: with another of either it is to be put in anew.
 * What is not signed is put nowhere.
 */
export function enterPlacement(
  app: App,
  viewer: Pick<Viewer, 'name'>,
  placementId: string,
  { itemKey, meantAt, state }: EnteringBody,
): Promise<Result<null, EnterFailure>> {
  return app.write<null, EnterFailure>(async (tx, now) => {
    const { placement, piece } = await lockPlacement(tx, placementId);
    const { clientId, channelId, onDay, publishAt } = placement;
    const list = await tx.findOneBy(FollowUpList, { channelId });
    const position = list?.items.findIndex(({ key, kind }) => key === itemKey && kind === 'enter') ?? -1;
    const item = list?.items[position];
    const [stands] = await rowsOf<{ state: PlacementState }>(tx, 'select state from placements where id = $1', [placementId]);
    const isAround = stands?.state === 'pencilled' || stands?.state === 'scheduled';
    if (!item || onDay === null || publishAt === null || !isAround || Date.parse(publishAt) !== Date.parse(meantAt))
      return fail({ code: 'http.changed_meanwhile' });
    if (state === 'done' && stands.state !== 'scheduled') return fail({ code: 'follow_up.not_signed' });
    const digests = [piece.digests.shared, piece.digests.channels[channelId] ?? ''];
    const known = await tx.findOneBy(FollowUp, { placementId, itemKey, kind: 'enter', meantAt: publishAt, digests: digests as never }); // compared as arrays
    const book = await loadCalendars(tx, now);
    const { calendar } = getDoer(book, item.personId ?? clientKey(clientId));
    const [dueOn = onDay] = placementWorkDays(item, getDay(onDay), calendar);
    const { words, personId, minutes } = item;
    const fresh = { placementId, clientId, kind: 'enter' as const, itemKey, position, words, personId, minutes, dueOn, meantAt: publishAt };
    const row = known ?? tx.create(FollowUp, { ...fresh, digests, state: 'open', settledBy: null, settledAt: null });
    await settle(tx, viewer, row, state, now);
    return ok(null);
  });
}

async function settle(tx: Tx, viewer: Pick<Viewer, 'name'>, found: FollowUp, state: FollowUpState, now: string): Promise<void> {
  if (found.state === state) return;
  const isOpen = state === 'open';
  Object.assign(found, { state, settledBy: isOpen ? null : viewer.name, settledAt: isOpen ? null : now });
  await tx.save(found);
  const [placement] = await rowsOf<{ pieceId: string }>(tx, 'select piece_id as "pieceId" from placements where id = $1', [
    found.placementId,
  ]);
  await recordActivity(tx, {
    clientId: found.clientId,
    thing: 'piece',
    thingId: placement?.pieceId ?? '',
    verb: `follow_up.${state}`,
    actor: viewer.name,
    detail: { words: found.words },
    at: now,
  });
  if (found.personId !== null) await wantPredictionOf(tx, [found.personId]);
}
