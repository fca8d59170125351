import type { ChannelLookShape, LookShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { firstPicture } from '../../production/index.js';

const PAGE = 30;

/** A channel of a client as those see it who follow it: what is out or dated, the newest first. Undefined where the client has no such channel. */
export async function channelLook(app: App, clientId: string, channelId: string, after: number): Promise<ChannelLookShape | undefined> {
  const [channel] = await app.read<{ ratio: string }>('select ratio from channels where id = $1 and client_id = $2', [channelId, clientId]);
  if (!channel) return undefined;
  const looks = await app.read<LookShape>(
    `select l.id as "placementId", p.id as "pieceId", p.title, l.on_day as on, to_char(l.at_time, 'HH24:MI') as at, l.state,
       ${firstPicture('coalesce(v.content, p.content)')} as "pictureId"
     from placements l join pieces p on p.id = l.piece_id left join versions v on v.id = l.out_version_id
     where l.channel_id = $1 and l.on_day is not null and not l.cancelled and not p.shelved and l.state <> 'missed'
     order by l.publish_at desc, l.id limit ${PAGE + 1} offset $2`,
    [channelId, after],
  );
  return { ...channel, looks: looks.slice(0, PAGE), next: looks.length > PAGE ? String(after + PAGE) : null };
}
