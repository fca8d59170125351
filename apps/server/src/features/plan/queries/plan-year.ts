import { bindSlots, firstOfMonth, lastOfMonth, nextMonth } from '@zesting/core';
import type { MarkerShape, YearShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { markersOf, themesOf, themesShown } from '../../calendar/index.js';
import { placedBetween, rhythmsOf, slotsBetween } from './rhythm-of.js';

const MONTHS = 12;

/** Twelve months of a client, from the one given: themes, how far each month is filled, and what stands on the calendar. Undefined: archived. */
export async function planYear(app: App, clientId: string, fromMonth: string): Promise<YearShape | undefined> {
  const names = Array.from({ length: MONTHS }, (_, index) => nextMonth(fromMonth, index));
  const [from, to] = [firstOfMonth(fromMonth), lastOfMonth(nextMonth(fromMonth, MONTHS - 1))];
  const [rhythm] = await rhythmsOf(app.manager, [clientId], from, app.clock.now());
  if (!rhythm) return undefined;
  const [placed, themed, markers] = await Promise.all([
    placedBetween(app.manager, [clientId], from, to),
    themesOf(app, clientId, from, to),
    markersOf(app, [clientId], from, to),
  ]);
  const closed = new Set(markers.flatMap(({ kind, on }) => (kind === 'blackout' ? [on] : [])));
  const { slots, beside } = bindSlots(slotsBetween(rhythm, from, to), placed);
  return {
    todayOn: rhythm.todayOn,
    hasRhythm: rhythm.rules.length > 0,
    months: names.map((month) => {
      const here = slots.filter(({ slot, placed: there }) => slot.on.startsWith(month) && (there !== null || !closed.has(slot.on)));
      const themes = themesShown(themed, firstOfMonth(month), lastOfMonth(month));
      return {
        month,
        theme: themes.find(({ period }) => period === 'month') ?? null,
        weekThemes: themes.filter(({ period, startOn }) => period === 'week' && startOn.startsWith(month)).length,
        slots: here.length,
        filled: here.filter(({ placed: there }) => there !== null).length,
        beside: beside.filter(({ on }) => on.startsWith(month)).length,
      };
    }),
    markers: once(markers),
    cycle: themed.cycle && { names: [...themed.cycle.names], fromMonth: themed.cycle.fromMonth },
  };
}

/** Markers of several days, which come a line per day, once each. */
function once(markers: readonly MarkerShape[]): MarkerShape[] {
  const all = new Map(markers.map((marker) => [`${marker.id ?? ''} ${marker.name} ${marker.startOn}`, { ...marker, on: marker.startOn }]));
  return [...all.values()].sort((a, b) => (a.startOn < b.startOn ? -1 : a.startOn > b.startOn ? 1 : 0));
}
