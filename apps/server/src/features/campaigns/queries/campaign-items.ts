import type { Day } from '@zesting/core';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';

/** A dated placement of a campaign's piece. */
export interface DatedRow {
  readonly id: string;
  readonly pieceId: string;
  readonly title: string;
  readonly channelId: string;
  readonly on: Day;
  readonly at: string;
  /** out, or cancelled: it stays */
  readonly isFixed: boolean;
  readonly earliestOn: Day | null;
}

/** The dated placements of a campaign's pieces, in the order of time; none of what is shelved or cancelled. */
export const datedOf = (reader: Reader, campaignId: string): Promise<DatedRow[]> =>
  rowsOf<DatedRow>(
    reader,
    `select l.id, p.id as "pieceId", p.title, l.channel_id as "channelId", l.on_day as on, l.at_time as at, l.state in ('out', 'sending', 'unsure') as "isFixed",
       p.earliest_publish_on as "earliestOn"
     from campaign_pieces g join pieces p on p.id = g.piece_id join placements l on l.piece_id = p.id
     where g.campaign_id = $1 and not p.shelved and not l.cancelled and l.on_day is not null order by l.publish_at, l.id`,
    [campaignId],
  );
