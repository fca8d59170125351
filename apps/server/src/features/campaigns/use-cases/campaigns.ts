import { addDays, fail, getDay, ok, type Result } from '@zesting/core';
import type { CampaignBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, noteOfClient, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { CampaignMarker } from '../entities/campaign-marker.entity.js';
import { CampaignPiece } from '../entities/campaign-piece.entity.js';
import { Campaign } from '../entities/campaign.entity.js';

export type CampaignFailure = {
  code:
    | 'campaign.order_wrong'
    | 'campaign.unknown'
    | 'campaign.marker_unknown'
    | 'campaign.too_many'
    | 'channel.unknown'
    | 'http.changed_meanwhile';
};

const MOST_CAMPAIGNS = 200;
const LONGEST_DAYS = 731;

export function addCampaign(app: App, viewer: Viewer, clientId: string, body: CampaignBody): Promise<Result<string, CampaignFailure>> {
  return app.write<string, CampaignFailure>(async (tx, now) => {
    await rowsOf(tx, 'select 1 from clients where id = $1 for no key update', [clientId]);
    const refused = await refusedOf(tx, clientId, body);
    if (refused) return fail(refused);
    const [{ count } = { count: 0 }] = await rowsOf<{ count: number }>(
      tx,
      'select count(*) as count from campaigns where client_id = $1 and archived_at is null',
      [clientId],
    );
    if (count >= MOST_CAMPAIGNS) return fail({ code: 'campaign.too_many' });
    const { name, aim, fromOn, toOn, channelIds, markerIds } = body;
    const told = { name: name.trim(), aim: aim.trim(), fromOn, toOn, channelIds };
    const id = await insertRow(tx, Campaign, { ...told, clientId, archivedAt: null, version: 1 });
    await putMarkers(tx, id, markerIds);
    await noteOfClient(tx, viewer, clientId, 'campaign.added', { campaign: told.name, fromOn, toOn }, now);
    return ok(id);
  });
}

/** Changes what is said of a campaign. Pieces and dates stay where they are: `moveCampaign` takes them along. */
export function changeCampaign(
  app: App,
  viewer: Viewer,
  campaignId: string,
  body: CampaignBody,
  version: number,
): Promise<Result<null, CampaignFailure>> {
  return app.write<null, CampaignFailure>(async (tx, now) => {
    const campaign = await lockCampaign(tx, campaignId);
    if (campaign.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const refused = await refusedOf(tx, campaign.clientId, body);
    if (refused) return fail(refused);
    const before = (await tx.findBy(CampaignMarker, { campaignId })).map(({ markerId }) => markerId).sort();
    const shown = ({ name, aim, fromOn, toOn, channelIds }: Pick<Campaign, 'name' | 'aim' | 'fromOn' | 'toOn' | 'channelIds'>) => ({
      name: name.trim(),
      aim: aim.trim(),
      fromOn,
      toOn,
      channelIds,
    });
    const next = shown(body);
    const changes = changesBetween({ ...shown(campaign), markerIds: before }, { ...next, markerIds: [...body.markerIds].sort() });
    if (Object.keys(changes).length === 0) return ok(null);
    await tx.update(Campaign, campaignId, { ...next, version: version + 1 });
    await tx.delete(CampaignMarker, { campaignId });
    await putMarkers(tx, campaignId, body.markerIds);
    await noteOfClient(tx, viewer, campaign.clientId, 'campaign.changed', { campaign: campaign.name, ...changes }, now);
    return ok(null);
  });
}

/** Puts a campaign away, or takes it up again; its pieces stay its own. */
export function setCampaignAway(app: App, viewer: Viewer, campaignId: string, isAway: boolean): Promise<Result<null>> {
  return app.write<null, never>(async (tx, now) => {
    const campaign = await lockCampaign(tx, campaignId);
    if ((campaign.archivedAt !== null) === isAway) return ok(null);
    await tx.update(Campaign, campaignId, { archivedAt: isAway ? now : null, version: campaign.version + 1 });
    const verb = isAway ? 'campaign.archived' : 'campaign.restored';
    await noteOfClient(tx, viewer, campaign.clientId, verb, { campaign: campaign.name }, now);
    return ok(null);
  });
}

/** Says which campaign a piece belongs to; null: none. */
export function setPieceCampaign(
  app: App,
  viewer: Viewer,
  pieceId: string,
  campaignId: string | null,
): Promise<Result<null, CampaignFailure>> {
  return app.write<null, CampaignFailure>(async (tx, now) => {
    const [piece] = await rowsOf<{ client_id: string }>(tx, 'select client_id from pieces where id = $1 for no key update', [pieceId]);
    if (!piece) throw new Error('the piece went away');
    const campaign = campaignId === null ? null : await tx.findOneBy(Campaign, { id: campaignId, clientId: piece.client_id });
    if (campaignId !== null && (!campaign || campaign.archivedAt !== null)) return fail({ code: 'campaign.unknown' });
    const there = await tx.findOneBy(CampaignPiece, { pieceId });
    if ((there?.campaignId ?? null) === campaignId) return ok(null);
    if (campaign) await tx.upsert(CampaignPiece, { pieceId, campaignId: campaign.id }, ['pieceId']);
    else await tx.delete(CampaignPiece, { pieceId });
    await recordActivity(tx, {
      clientId: piece.client_id,
      thing: 'piece',
      thingId: pieceId,
      verb: 'campaign.piece_set',
      actor: viewer.name,
      detail: { campaign: campaign?.name ?? null },
      at: now,
    });
    return ok(null);
  });
}

/** A campaign under lock; a missing one is a bug, since access was checked. */
export const lockCampaign = (tx: Tx, id: string): Promise<Campaign> =>
  tx.findOneOrFail(Campaign, { where: { id }, lock: { mode: 'pessimistic_write' } });

/** Whether a period is one that a campaign can have. */
export const isPeriod = ({ fromOn, toOn }: { readonly fromOn: string; readonly toOn: string }): boolean =>
  toOn >= fromOn && toOn <= addDays(getDay(fromOn), LONGEST_DAYS);

const putMarkers = async (tx: Tx, campaignId: string, markerIds: readonly string[]): Promise<void> => {
  if (markerIds.length > 0)
    await tx.insert(
      CampaignMarker,
      markerIds.map((markerId) => ({ campaignId, markerId })),
    );
};

async function refusedOf(tx: Tx, clientId: string, body: CampaignBody): Promise<CampaignFailure | null> {
  if (!isPeriod(body)) return { code: 'campaign.order_wrong' };
  const [found] = await rowsOf<{ channels: boolean; markers: boolean }>(
    tx,
    `select not exists (select 1 from unnest($1::uuid[]) i where not exists (select 1 from channels h where h.id = i and h.client_id = $3)) as channels,
       not exists (select 1 from unnest($2::uuid[]) i where not exists (select 1 from markers m where m.id = i and m.client_id = $3)) as markers`,
    [body.channelIds, body.markerIds, clientId],
  );
  if (!found?.channels) return { code: 'channel.unknown' };
  return found.markers ? null : { code: 'campaign.marker_unknown' };
}
