import { getValue } from '@zesting/core';
import { addRule, markEvergreen, type App } from '@zesting/server';
import { CLIENTS } from './clients.js';
import { todayOf } from './plan-story.js';
import type { Setup } from './setup.js';

/** What the museum shows again: a knot is a knot, however often it is tied. Rest in days, times at most. */
const LASTING: readonly (readonly [title: string, restDays: number, timesMost: number | null])[] = [
  ['A knot a week: the bowline', 21, null],
  ['A knot a week: the sheet bend', 21, null],
  ['The pilot boat comes home', 30, 2],
];

/** The museum's evergreen stock, and a slot on Sundays that asks for it. */
export async function addEvergreens(app: App, setup: Setup, now: string): Promise<void> {
  const manager = setup.viewers[CLIENTS.tide.manager];
  const { id: clientId, channelIds } = setup.clients.tide;
  for (const [title, restDays, timesMost] of LASTING) {
    const [piece] = await app.read<{ id: string }>('select id from pieces where title = $1', [title]);
    if (!piece) throw new Error(`no piece: ${title}`);
    getValue(await markEvergreen(app, manager, piece.id, { restDays, timesMost, untilOn: null }, 0));
  }
  const sundays = {
    channelId: channelIds[0] ?? '',
    rule: 'FREQ=WEEKLY;BYDAY=SU',
    at: '17:00',
    fromOn: todayOf(now, CLIENTS.tide),
    untilOn: null,
  };
  getValue(
    await addRule(app, manager, clientId, {
      ...sundays,
      skipsHolidays: false,
      pillarId: null,
      formatId: null,
      purpose: null,
      fromStock: true,
    }),
  );
}
