import { againFrom, type Day, type EvergreenRule, type PublishWindow } from '@zesting/core';
import type { StockRowShape } from '@zesting/contract';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';
import { windowOf } from '../../embargoes/index.js';
import { subjectOfPiece } from '../../production/index.js';

/** So many pieces of a client's stock are shown and chosen from: those that rested longest. */
const MOST = 200;

/** A piece that lasts, on one channel on which it was out. */
export interface StockRow extends Omit<StockRowShape, 'fromOn' | 'timesLeft' | 'times' | 'lastOn'> {
  readonly clientId: string;
  readonly notes: string;
  /** the topic that it is about */
  readonly subjectId: string | null;
  /** between which days it may be out */
  readonly window: PublishWindow;
  readonly rule: EvergreenRule;
  /** the days on which it is out there or will be, in their order */
  readonly days: readonly Day[];
}

/** Rows of the stock of that condition, over `e`, `p` and `l`: those that rested longest first. */
const stockWhere = (reader: Reader, condition: string, values: readonly unknown[]): Promise<StockRow[]> =>
  rowsOf<StockRow>(
    reader,
    `select e.piece_id as "pieceId", e.client_id as "clientId", p.number as "pieceNumber", p.title, left(p.notes, 500) as notes, p.pillar_id as "pillarId",
       p.format_id as "formatId", f.name as "formatName", l.channel_id as "channelId", h.name as "channelName", ${subjectOfPiece('e.piece_id')} as "subjectId", ${windowOf('e.piece_id')} as window,
       jsonb_build_object('restDays', e.rest_days, 'timesMost', e.times_most, 'untilOn', e.until_on) as rule,
       to_jsonb(array_agg(l.on_day order by l.on_day)) as days,
       (array_agg(l.id order by l.publish_at desc) filter (where l.out_at is not null))[1] as "placementId"
     from evergreens e join pieces p on p.id = e.piece_id and not p.shelved join formats f on f.id = p.format_id
       join placements l on l.piece_id = e.piece_id and not l.cancelled
         and (l.out_at is not null or (l.on_day is not null and l.state in ('pencilled', 'scheduled', 'sending', 'unsure')))
       join channels h on h.id = l.channel_id and h.archived_at is null
     where ${condition}
     group by e.piece_id, p.id, f.id, h.id, l.channel_id
     having bool_or(l.out_at is not null)
     order by max(l.on_day), p.number, h.position limit ${MOST}`,
    values,
  );

/** The evergreen stock of a client. */
export const stockOf = (reader: Reader, clientId: string): Promise<StockRow[]> => stockWhere(reader, 'e.client_id = $1', [clientId]);

/** One piece's rows of the stock: none where it does not last, or was never out. */
export const stockOfPiece = (reader: Reader, pieceId: string): Promise<StockRow[]> => stockWhere(reader, 'e.piece_id = $1', [pieceId]);

/** A row as it is shown. */
export function stockRowShape({
  clientId: _,
  notes: _notes,
  subjectId: _subjectId,
  window: _window,
  rule,
  days,
  ...row
}: StockRow): StockRowShape {
  const again = againFrom(days, rule);
  return { ...row, times: days.length, lastOn: days.at(-1) ?? '', fromOn: again?.fromOn ?? null, timesLeft: again?.timesLeft ?? null };
}
