import type { PlacementState } from '../reckoning/index.js';
import { addDays, compareInstants, daysBetween, type Day, type InstantText, type TimeOfDay } from '../time/index.js';
import type { Slot } from '../cadence/index.js';

/** A placement that may stand in a slot. */
export interface Placed {
  readonly id: string;
  readonly channelId: string;
  readonly on: Day;
  readonly at: TimeOfDay;
  readonly state: PlacementState;
}

/** A slot, and what stands in it. */
export interface FilledSlot<S extends Slot, P extends Placed> {
  readonly slot: S;
  readonly placed: P | null;
}

const minutesOf = (at: TimeOfDay): number => Number(at.slice(0, 2)) * 60 + Number(at.slice(3));

/**
 * Binds placements to slots: each to the nearest free slot of its channel on its date; the nearest pair first, of equally near ones the earlier
 * slot, then the earlier placement. Cancelled and undated ones bind nothing.
 * @returns every slot in its order, and the placements that stand in none
 */
export function bindSlots<S extends Slot, P extends Placed>(
  slots: readonly S[],
  placements: readonly P[],
): { readonly slots: FilledSlot<S, P>[]; readonly beside: P[] } {
  const byPlace = new Map<string, number[]>();
  for (const [index, slot] of slots.entries())
    byPlace.set(`${slot.channelId} ${slot.on}`, [...(byPlace.get(`${slot.channelId} ${slot.on}`) ?? []), index]);
  const pairs = placements.flatMap((placed, which) =>
    (byPlace.get(`${placed.channelId} ${placed.on}`) ?? []).map((index) => ({
      index,
      which,
      apart: Math.abs(minutesOf(placed.at) - minutesOf(slots[index]?.at ?? placed.at)),
    })),
  );
  pairs.sort((a, b) => a.apart - b.apart || a.index - b.index || a.which - b.which);
  const bound = new Map<number, number>();
  const taken = new Set<number>();
  for (const { index, which } of pairs) {
    if (bound.has(index) || taken.has(which)) continue;
    bound.set(index, which);
    taken.add(which);
  }
  return {
    slots: slots.map((slot, index) => ({ slot, placed: placements[bound.get(index) ?? -1] ?? null })),
    beside: placements.filter((_, which) => !taken.has(which)),
  };
}

/** What a day of the strip shows: the worst of its slots. `closed`: its slots are blacked out. */
export type RunwayCell = 'hole' | 'pencilled' | 'scheduled' | 'closed' | 'none';

export interface Runway {
  /** days from today to the first hole; null: none in the horizon */
  readonly days: number | null;
  /** one per day, from today */
  readonly cells: readonly RunwayCell[];
}

/** Whether a slot that holds this is kept: something is out there, or signed and dated. */
const isKept = (state: PlacementState | undefined): boolean => state === 'scheduled' || state === 'out';

/** Whether a slot is still to come. At its very instant it is over. */
export const isAhead = ({ publishAt }: Pick<Slot, 'publishAt'>, now: InstantText): boolean => compareInstants(publishAt, now) > 0;

function cellOf(filled: readonly FilledSlot<Slot, Placed>[], now: InstantText): RunwayCell {
  // a slot that is over and was not kept is no hole to come
  const open = filled.filter(({ slot, placed }) => !isKept(placed?.state) && isAhead(slot, now));
  if (open.length === 0) return filled.some(({ placed }) => isKept(placed?.state)) ? 'scheduled' : 'none';
  return open.some(({ placed }) => placed === null) ? 'hole' : 'pencilled';
}

/**
 * A client's runway: days from today to the first slot after now, not blacked out, in which nothing scheduled or out stands, and what each day
 * shows. A slot in which something is only pencilled ends the runway too.
 * @param todayOn the client's
 * @param blackouts days on which nothing is to go out
 * @param horizonDays so many days are looked at, from today
 */
export function runwayOf(
  filled: readonly FilledSlot<Slot, Placed>[],
  todayOn: Day,
  now: InstantText,
  blackouts: ReadonlySet<string>,
  horizonDays: number,
): Runway {
  const byDay = new Map<string, FilledSlot<Slot, Placed>[]>();
  for (const one of filled) byDay.set(one.slot.on, [...(byDay.get(one.slot.on) ?? []), one]);
  const cells = Array.from({ length: horizonDays }, (_, ahead): RunwayCell => {
    const day = addDays(todayOn, ahead);
    const cell = cellOf(byDay.get(day) ?? [], now);
    return blackouts.has(day) && cell !== 'none' ? 'closed' : cell;
  });
  const first = filled.find(
    ({ slot, placed }) =>
      !isKept(placed?.state) && daysBetween(todayOn, slot.on) < horizonDays && !blackouts.has(slot.on) && isAhead(slot, now),
  );
  return { days: first ? daysBetween(todayOn, first.slot.on) : null, cells };
}
