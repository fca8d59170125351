import type { CalendarEntryShape, CalendarShape, MixShape } from '@zesting/contract';
import { count, dayWords, monthWords } from '../../lib/format';
import { outsideWords, standingWords } from '../../lib/words';

/** What a drop would do, before it is done. `late` and `clash` speak against it. */
export interface WhatIf {
  readonly kind: 'late' | 'clash' | 'mix';
  readonly words: string;
}

/** Whether another placement of the same piece, not this one, stands in a month that is seen. */
const isThere = ({ id, pieceId }: CalendarEntryShape, entries: readonly CalendarEntryShape[], month: string): boolean =>
  entries.some((other) => other.id !== id && other.pieceId === pieceId && (other.on ?? '').startsWith(month));

/**
 * What a placement would do on a day: whether it can be ready, what stands there, and what becomes of the mix of the month that it comes into.
 * @param mix of the day's month; undefined while it is not known
 */
export function whatIf(entry: CalendarEntryShape, on: string, calendar: CalendarShape, mix: MixShape | undefined): WhatIf[] {
  const all: WhatIf[] = [];
  if (entry.earliestOn !== null && on < entry.earliestOn)
    all.push({ kind: 'late', words: `cannot be ready before ${dayWords(entry.earliestOn)}` });
  const outside = outsideWords(entry.window, on);
  if (outside !== null) all.push({ kind: 'clash', words: outside });
  const closed = calendar.markers.filter(
    (marker) =>
      marker.on === on &&
      (marker.clientId === null || marker.clientId === entry.clientId) &&
      (marker.kind === 'blackout' || marker.kind === 'production_day'),
  );
  for (const marker of closed)
    all.push({ kind: 'clash', words: standingWords({ kind: marker.kind as 'blackout' | 'production_day', name: marker.name }) });
  const beside = calendar.entries.filter((other) => other.id !== entry.id && other.on === on && other.channelId === entry.channelId);
  if (beside.length > 0)
    all.push({
      kind: 'clash',
      words:
        beside.length === 1
          ? `“${beside[0]?.pieceTitle}” is on ${entry.channelName} that day`
          : `${count(beside.length, 'piece')} on ${entry.channelName} that day`,
    });
  const month = on.slice(0, 7);
  const row = mix?.rows.find(({ pillarId }) => pillarId === entry.pillarId);
  // within its month nothing changes, nor where the piece counts there already
  if (mix && entry.pillarId !== null && row && !(entry.on ?? '').startsWith(month) && !isThere(entry, calendar.entries, month)) {
    const share = (of: number, total: number) => (total === 0 ? 0 : Math.round((100 * of) / total));
    const aim = row.share > 0 ? `, of ${row.share} % that it should have` : '';
    all.push({
      kind: 'mix',
      words: `${row.name} in ${monthWords(month)}: ${row.count} of ${mix.total} → ${row.count + 1} of ${mix.total + 1}, ${share(row.count, mix.total)} → ${share(row.count + 1, mix.total + 1)} %${aim}`,
    });
  }
  return all;
}
