import { copyOnChannel, laidOutOn, linksOn, type Content, type Day } from '@zesting/core';
import type { CopyRowShape, CopyTableShape, PageAnswerShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { firstPicture } from './first-picture.js';

/** So many rows at most: two months of a client that publishes eight times a day. */
const MOST = 500;

interface Row extends Omit<CopyRowShape, 'copy' | 'sharedWith' | 'isLaidOut' | 'tags' | 'firstComment' | 'link' | 'disclosure'> {
  content: Content;
  channels: Record<string, string>;
}

/** What goes out on a client's channels on some days, one below another. @param from, to both are in it */
export async function copyTableOf(app: App, clientId: string, from: Day, to: Day): Promise<CopyTableShape> {
  const rows = await app.read<Row>(
    `select l.id as "placementId", p.id as "pieceId", p.number as "pieceNumber", p.title, f.name as "formatName", l.channel_id as "channelId", h.name as "channelName",
       l.on_day as on, to_char(l.at_time, 'HH24:MI') as at, l.state, ${firstPicture('p.content')} as "pictureId", p.content, p.purpose, h.copy_limit as "copyLimit", h.tag_limit as "tagLimit", h.counts_tags as "countsTags", h.links_work as "linksWork",
       p.content_version as "contentVersion", p.version,
       (select jsonb_object_agg(o.id, o.name) from channels o where p.content -> 'channels' ? o.id::text) as channels
     from placements l join pieces p on p.id = l.piece_id join formats f on f.id = p.format_id join channels h on h.id = l.channel_id
     where l.client_id = $1 and l.on_day between $2 and $3 and not l.cancelled and not p.shelved
     order by l.on_day, l.at_time nulls last, h.position, p.number limit ${MOST}`,
    [clientId, from, to],
  );
  const pages = await app.read<PageAnswerShape>(
    'select address, status, asked_at as "askedAt" from asked_pages where address = any($1) and asked_at is not null order by address',
    [[...new Set(rows.flatMap(({ content, channelId }) => linksOn(content, channelId)))]],
  );
  const [undated] = await app.read<{ count: number }>(
    `select count(*) as count from placements l join pieces p on p.id = l.piece_id where p.client_id = $1 and p.list is not null and l.on_day is null and not l.cancelled`,
    [clientId],
  );
  return { rows: rows.map(rowShape), undated: undated?.count ?? 0, pages };
}

function rowShape({ content, channels, ...row }: Row): CopyRowShape {
  const part = content.channels[row.channelId];
  const shares = (id: string) => (content.channels[id]?.copy ?? '').trim() === '';
  const others = Object.keys(content.channels).filter((id) => id !== row.channelId && shares(id));
  return {
    ...row,
    copy: copyOnChannel(content, row.channelId),
    sharedWith: shares(row.channelId) ? others.flatMap((id) => channels[id] ?? []) : [],
    isLaidOut: laidOutOn(content, row.channelId) !== null,
    tags: [...(part?.tags ?? [])],
    firstComment: part?.firstComment ?? '',
    link: part?.link ?? '',
    disclosure: content.shared.disclosure,
  };
}
