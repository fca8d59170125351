import type { AudiencesBody, FreeSlotsShape, RhythmShape, RunwayShape } from '@zesting/contract';
import { addDays, bindSlots, isAhead, runwayOf, type Day } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { dayNear } from '../../../platform/time/day-near.js';
import { blackoutsBetween, byClientOf, placedBetween, rhythmsOf, slotsBetween, type ClientRhythm } from './rhythm-of.js';

/** So far ahead the next days of a rule are looked for, and so many are told. */
const NEXT_DAYS = 400;
const NEXT = 5;
/** The runway strip shows six weeks, and the station counts the holes of two. */
const HORIZON_DAYS = 42;
const NEAR_DAYS = 14;
/** Reach is projected over four weeks; where nobody said how far channels overlap, three in ten. Common practice: a guess, to be set. */
const REACH_DAYS = 28;
const USUAL_OVERLAP = 30;

/** A client's rhythm as it is edited: what holds today or later. Undefined where the client is archived. */
export async function rhythmOf(app: App, clientId: string): Promise<RhythmShape | undefined> {
  const [rhythm] = await rhythmsOf(app.manager, [clientId], null, app.clock.now());
  if (!rhythm) return undefined;
  const { todayOn, zone } = rhythm;
  const holds = rhythm.rules.filter(({ untilOn }) => untilOn === null || untilOn >= todayOn);
  const wanted = await wantedOf(app, clientId);
  const ahead = slotsBetween({ ...rhythm, rules: holds }, todayOn, addDays(todayOn, NEXT_DAYS));
  return {
    todayOn,
    zone,
    rules: holds.map((rule) => ({
      ...rule,
      exceptOn: rule.exceptOn.filter((on) => on >= todayOn),
      nextOn: ahead
        .filter(({ ruleId }) => ruleId === rule.id)
        .slice(0, NEXT)
        .map(({ on }) => on),
    })),
    ended: rhythm.rules.length - holds.length,
    ...wanted,
    slotsAhead: countOf(ahead.filter(({ on }) => on < addDays(todayOn, REACH_DAYS))),
  };
}

/** What is wanted of a client's rhythm, and whom it reaches. */
async function wantedOf(app: App, clientId: string): Promise<Pick<RhythmShape, 'perWeek' | 'perMonth' | 'audiences'>> {
  const [row] = await app.read<{ perWeek: number | null; perMonth: number | null; channels: AudiencesBody['channels']; overlap: number }>(
    'select per_week as "perWeek", per_month as "perMonth", audiences as channels, overlap from client_plans where client_id = $1',
    [clientId],
  );
  const { perWeek = null, perMonth = null, channels = [], overlap = USUAL_OVERLAP } = row ?? {};
  return { perWeek, perMonth, audiences: { channels, overlap } };
}

/** How many slots each channel has. */
function countOf(slots: readonly { readonly channelId: string }[]): { channelId: string; slots: number }[] {
  const counts = new Map<string, number>();
  for (const { channelId } of slots) counts.set(channelId, (counts.get(channelId) ?? 0) + 1);
  return [...counts].map(([channelId, all]) => ({ channelId, slots: all }));
}

/** The days within which the todays of all clients lie, whatever their zones. */
function daysAround(rhythms: readonly ClientRhythm[], ahead: number): [Day, Day] {
  const todays = rhythms.map(({ todayOn }) => todayOn).sort();
  const [first, last] = [todays[0], todays.at(-1)];
  if (!first || !last) throw new Error('there is no client');
  return [first, addDays(last, ahead - 1)];
}

/** The runway of each client: how long what is signed and dated lasts, and what each day of six weeks shows. */
export async function runwayFor(app: App, clientIds: readonly string[]): Promise<RunwayShape> {
  const now = app.clock.now();
  // a day before any client's today: what ended before then is not asked for
  const rhythms = await rhythmsOf(app.manager, clientIds, addDays(dayNear(now), -2), now);
  if (rhythms.length === 0) return { horizonDays: HORIZON_DAYS, rows: [] };
  const [from, to] = daysAround(rhythms, HORIZON_DAYS);
  const placed = byClientOf(await placedBetween(app.manager, clientIds, from, to));
  const blackouts = await blackoutsBetween(app.manager, clientIds, from, to);
  return {
    horizonDays: HORIZON_DAYS,
    rows: rhythms.map((rhythm) => {
      const { clientId, todayOn } = rhythm;
      const closed = new Set(blackouts.get(clientId)?.keys());
      const filled = bindSlots(slotsBetween(rhythm, todayOn, addDays(todayOn, HORIZON_DAYS - 1)), placed.get(clientId) ?? []).slots;
      const near = addDays(todayOn, NEAR_DAYS);
      return {
        clientId,
        todayOn,
        hasRhythm: rhythm.rules.some(({ untilOn }) => untilOn === null || untilOn >= todayOn),
        ...strip(filled, todayOn, now, closed),
        holes: filled.filter(({ slot, placed: there }) => there === null && slot.on < near && !closed.has(slot.on) && isAhead(slot, now))
          .length,
      };
    }),
  };
}

function strip(filled: Parameters<typeof runwayOf>[0], todayOn: Day, now: string, closed: ReadonlySet<string>) {
  const { days, cells } = runwayOf(filled, todayOn, now, closed, HORIZON_DAYS);
  return { days, cells: [...cells] };
}

/** The slots to come in which nothing stands, from `from` to `to`, by client and time. */
export async function freeSlots(app: App, clientIds: readonly string[], from: Day, to: Day): Promise<FreeSlotsShape> {
  const now = app.clock.now();
  const rhythms = (await rhythmsOf(app.manager, clientIds, from, now)).filter(({ rules }) => rules.length > 0);
  if (rhythms.length === 0) return { slots: [] };
  const ids = rhythms.map(({ clientId }) => clientId);
  const placed = byClientOf(await placedBetween(app.manager, ids, from, to));
  const blackouts = await blackoutsBetween(app.manager, ids, from, to);
  return {
    slots: rhythms.flatMap((rhythm) =>
      bindSlots(slotsBetween(rhythm, from, to), placed.get(rhythm.clientId) ?? [])
        .slots.filter(({ slot, placed: there }) => there === null && isAhead(slot, now) && !blackouts.get(rhythm.clientId)?.has(slot.on))
        .map(({ slot: { publishAt: _publishAt, ...slot } }) => ({ clientId: rhythm.clientId, ...slot })),
    ),
  };
}

/** How many slots a client's rhythm has in so many days from its today. Undefined where the client is archived. */
export async function slotsAhead(app: App, clientId: string, days: number): Promise<{ todayOn: Day; slots: number } | undefined> {
  const [rhythm] = await rhythmsOf(app.manager, [clientId], null, app.clock.now());
  return rhythm && { todayOn: rhythm.todayOn, slots: slotsBetween(rhythm, rhythm.todayOn, addDays(rhythm.todayOn, days - 1)).length };
}
