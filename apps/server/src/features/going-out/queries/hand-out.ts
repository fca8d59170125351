import { fileNames, getDay, handOut, mediaOn, withCovers, type HandOut } from '@zesting/core';
import type { GoingOutRowShape, HandOutShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { fileFacts, mediumShape, type FileFacts } from '../../production/index.js';
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

const handOutShape = ({ texts, laidOut: _, ...rest }: HandOut) => ({ ...rest, texts: [...texts] });

/** Only pictures are cut. */
const isCut = ({ assetId }: { readonly assetId: string }, files: ReadonlyMap<string, FileFacts>): boolean =>
  files.get(assetId)?.mime.startsWith('image/') ?? false;

/** What is copied out by hand of a placement, with what speaks against it. */
export async function handOutOf(app: App, placementId: string): Promise<HandOutShape> {
  const placed = await placedOf(app, placementId);
  const { content, channelId, rules, on, pieceTitle } = placed;
  const { findings } = await rowOf(app, placed);
  const [channel] = await app.read<{ postingAddress: string | null; code: string }>(
    'select h.posting_address as "postingAddress", c.code from channels h join clients c on c.id = h.client_id where h.id = $1',
    [channelId],
  );
  const part = content.channels[channelId];
  const shown = withCovers(mediaOn(content.shared.media, part, rules), content.shared.media, part);
  const files = await fileFacts(
    app,
    shown.map(({ assetId }) => assetId),
  );
  const media = shown
    .filter(({ assetId }) => files.has(assetId))
    .map(({ crop, coverOf, ...medium }) => ({ ...mediumShape(medium, files), coverOf, crop: isCut(medium, files) ? crop : null }));
  const named = { on: on === null ? null : getDay(on), clientCode: channel?.code ?? '', title: pieceTitle };
  return {
    channelId,
    ...handOutShape(handOut(content, channelId)),
    media,
    fileNames: fileNames(media.map(({ name }) => ({ ...named, extension: name.split('.').at(-1) ?? '' }))),
    postingAddress: channel?.postingAddress ?? null,
    findings,
  };
}
