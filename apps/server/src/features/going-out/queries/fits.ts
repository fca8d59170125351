import type { FindingCode } from '@zesting/core';
import type { FitsShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { goingOutRows, placedWhere } from './placed.js';

/** What hangs on the day and on sign-off, and not on what is in it. */
const OF_THE_DAY: readonly FindingCode[] = ['not_signed', 'time_passed', 'blackout', 'twin'];

/** What of a piece does not fit on its channels, whatever its dates: for whoever sends it to the client. A channel is told once. */
export async function fitsOf(app: App, pieceId: string): Promise<FitsShape> {
  const placed = await placedWhere(app, `l.piece_id = $1 and not l.cancelled and l.out_at is null order by h.position, l.created_at`, [
    pieceId,
  ]);
  const once = placed.filter(({ channelId }, index) => placed.findIndex((other) => other.channelId === channelId) === index);
  const rows = await goingOutRows(app, once);
  return {
    channels: rows.flatMap(({ channelId, channelName, findings: all }) => {
      const findings = all.filter(({ code }) => !OF_THE_DAY.includes(code));
      return findings.length === 0 ? [] : [{ channelId, channelName, findings }];
    }),
  };
}
