import { addDays, fail, getDay, ok, shiftOf, type Result } from '@zesting/core';
import type { MoveCampaignBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { putPlacement, shiftMarkers, type MoveFailure } from '../../calendar/index.js';
import { CampaignMarker } from '../entities/campaign-marker.entity.js';
import { Campaign } from '../entities/campaign.entity.js';
import { datedOf } from '../queries/campaign-items.js';
import { isPeriod, lockCampaign, type CampaignFailure } from './campaigns.js';

/**
 * Gives a campaign another period. Moved as a whole and along, its dates and every placement that is not out move by as many days, all or none; else all
 * stays where it is.
 */
export function moveCampaign(
  app: App,
  viewer: Viewer,
  campaignId: string,
  { fromOn, toOn, isAlong }: MoveCampaignBody,
  version: number,
): Promise<Result<null, CampaignFailure | MoveFailure>> {
  return app.write<null, CampaignFailure | MoveFailure>(async (tx, now) => {
    const campaign = await lockCampaign(tx, campaignId);
    if (campaign.version !== version) return fail({ code: 'http.changed_meanwhile' });
    if (!isPeriod({ fromOn, toOn })) return fail({ code: 'campaign.order_wrong' });
    const period = (of: { fromOn: string; toOn: string }) => ({ fromOn: getDay(of.fromOn), toOn: getDay(of.toOn) });
    const byDays = isAlong ? shiftOf(period(campaign), period({ fromOn, toOn })) : 0;
    if (byDays !== 0) {
      const dated = (await datedOf(tx, campaignId)).filter(({ isFixed }) => !isFixed);
      // the furthest goes first, so that none steps on another of the same piece; pieces in the order of their ids, as everybody locks them
      const order = [...dated].sort(
        (a, b) => (a.pieceId < b.pieceId ? -1 : a.pieceId > b.pieceId ? 1 : 0) || (a.on < b.on ? -1 : 1) * -Math.sign(byDays),
      );
      for (const { id, on, at } of order) {
        const moved = await putPlacement(app, tx, viewer, id, { on: addDays(on, byDays), at }, null, now);
        if (!moved.ok) return moved;
      }
      const markers = await tx.findBy(CampaignMarker, { campaignId });
      await shiftMarkers(
        tx,
        viewer,
        markers.map(({ markerId }) => markerId),
        byDays,
        now,
      );
    }
    await tx.update(Campaign, campaignId, { fromOn, toOn, version: version + 1 });
    const detail = { campaign: campaign.name, from: `${campaign.fromOn} – ${campaign.toOn}`, to: `${fromOn} – ${toOn}`, byDays };
    await noteOfClient(tx, viewer, campaign.clientId, 'campaign.moved', detail, now);
    return ok(null);
  });
}
