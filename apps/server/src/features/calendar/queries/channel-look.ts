import { mediaShown, type ChannelPart, type Medium, type ShapeRules } from '@zesting/core';
import type { ChannelLookShape, LookPictureShape, LookShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { fileFacts, type FileFacts } from '../../production/index.js';

const PAGE = 30;

interface LookRow extends Omit<LookShape, 'picture'> {
  media: Medium[];
  part: ChannelPart | null;
}

/** A channel of a client as those see it who follow it: what is out or dated, the newest first. Undefined where the client has no such channel. */
export async function channelLook(app: App, clientId: string, channelId: string, after: number): Promise<ChannelLookShape | undefined> {
  const [rules] = await app.read<ShapeRules>(
    'select ratio, other_shapes as "otherShapes", cuts_media as "cutsMedia" from channels where id = $1 and client_id = $2',
    [channelId, clientId],
  );
  if (!rules) return undefined;
  const rows = await app.read<LookRow>(
    `select l.id as "placementId", p.id as "pieceId", p.title, l.on_day as on, to_char(l.at_time, 'HH24:MI') as at, l.state,
       coalesce(v.content, p.content) -> 'shared' -> 'media' as media, coalesce(v.content, p.content) -> 'channels' -> l.channel_id::text as part
     from placements l join pieces p on p.id = l.piece_id left join versions v on v.id = l.out_version_id
     where l.channel_id = $1 and l.on_day is not null and not l.cancelled and not p.shelved and l.state <> 'missed'
     order by l.publish_at desc, l.id limit ${PAGE + 1} offset $2`,
    [channelId, after],
  );
  const files = await fileFacts(
    app,
    rows.flatMap(({ media }) => media.map(({ assetId }) => assetId)),
  );
  const looks = rows.slice(0, PAGE).map(({ media, part, ...row }) => ({ ...row, picture: firstOf(media, part ?? undefined, files) }));
  return { rules, looks, next: rows.length > PAGE ? String(after + PAGE) : null };
}

function firstOf(media: readonly Medium[], part: ChannelPart | undefined, files: ReadonlyMap<string, FileFacts>): LookPictureShape | null {
  for (const { assetId, crop } of mediaShown(media, part)) {
    const file = files.get(assetId);
    if (file?.mime.startsWith('image/')) return { assetId, width: file.width, height: file.height, crop };
  }
  return null;
}
