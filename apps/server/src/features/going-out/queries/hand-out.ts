import { fileNames, getDay, handOut, mediaOn } from '@zesting/core';
import type { GoingOutRowShape, HandOutShape, MediumShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { goingOutRows, placedWhere, type Placed } from './placed.js';

async function placedOf(app: App, placementId: string): Promise<Placed> {
  const [placed] = await placedWhere(app, 'l.id = $1', [placementId]);
  if (!placed) throw new Error('the placement went away');
  return placed;
}

/** A placement with what speaks against it. */
export const goingOutRow = async (app: App, placementId: string): Promise<GoingOutRowShape> => rowOf(app, await placedOf(app, placementId));

async function rowOf(app: App, placed: Placed): Promise<GoingOutRowShape> {
  const { channelId, on } = placed;
  const beside = on === null ? [] : await placedWhere(app, 'l.channel_id = $1 and l.on_day = $2 and not l.cancelled', [channelId, on]);
  const [row] = await goingOutRows(app, [placed], [placed, ...beside]);
  if (!row) throw new Error('a row went away');
  return row;
}

/** What is copied out by hand of a placement, with what speaks against it. */
export async function handOutOf(app: App, placementId: string): Promise<HandOutShape> {
  const placed = await placedOf(app, placementId);
  const { content, channelId, rules, on, pieceTitle } = placed;
  const { findings } = await rowOf(app, placed);
  const [channel] = await app.read<{ postingAddress: string | null; code: string }>(
    'select h.posting_address as "postingAddress", c.code from channels h join clients c on c.id = h.client_id where h.id = $1',
    [channelId],
  );
  const chosen = mediaOn(content.shared.media, rules);
  const files = await app.read<Pick<MediumShape, 'assetId' | 'mime' | 'width' | 'height'>>(
    'select id as "assetId", mime, width, height from assets where id = any($1)',
    [chosen.map(({ assetId }) => assetId)],
  );
  const media = chosen.flatMap(({ assetId, name, alt }) =>
    files.filter((file) => file.assetId === assetId).map((file) => ({ ...file, name, alt })),
  );
  const named = { on: on === null ? null : getDay(on), clientCode: channel?.code ?? '', title: pieceTitle };
  return {
    ...handOut(content, channelId),
    media,
    fileNames: fileNames(media.map(({ name }) => ({ ...named, extension: name.split('.').at(-1) ?? '' }))),
    postingAddress: channel?.postingAddress ?? null,
    findings,
  };
}
