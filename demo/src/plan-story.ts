import { Temporal } from 'temporal-polyfill';
import { addDays, dayIn, getTimeOfDay, toInstantAfterGap, weekdayOf, type Day, type InstantText } from '@zesting/core';
import { CLIENTS, type ClientKey } from './clients.js';
import type { Ending, StoryPiece } from './pieces.js';
import { PEOPLE, ROUTES, type PersonKey } from './story.js';

/** One thing that happens to a piece of the story. */
export type Act =
  | 'ask'
  | 'decline'
  | 'accept'
  | 'assign'
  | 'begin'
  | 'make'
  | 'check'
  | 'hand_back'
  | 'pencil'
  | 'send'
  | 'ask_for_changes'
  | 'second_round'
  | 'approve'
  | 'place'
  | 'edit_after'
  | 'mark_out'
  | 'wish_tight'
  | 'wish_beyond'
  | 'overrun';

export interface Moment {
  readonly piece: StoryPiece;
  readonly act: Act;
  /** milliseconds since 1970 */
  readonly atMs: number;
}

/** Everything in the story that has a day, reckoned from one present. */
export interface StoryPlan {
  readonly now: InstantText;
  /** all moments in the order in which they happen; those of the present itself come last */
  readonly moments: readonly Moment[];
  /** the day on which a piece is wished for, in its client's zone; null where no date was named */
  readonly wishOn: (piece: StoryPiece) => Day | null;
  /** when its placements go out, in milliseconds since 1970 */
  readonly publishMs: (piece: StoryPiece) => number[];
}

/** Whose clock an act goes by. */
type Whose = 'client' | 'manager' | 'maker';

/** What comes between asking and the present: by whose clock, what share of the way, and at what hour of the day it would be. */
const ACTS: Partial<Record<Act, readonly [Whose, number, number]>> = {
  ask: ['client', 0, 9],
  decline: ['manager', 0.3, 11],
  accept: ['manager', 0.05, 10],
  assign: ['manager', 0.1, 11],
  begin: ['maker', 0.2, 10],
  make: ['maker', 0.5, 13],
  check: ['manager', 0.55, 14],
  hand_back: ['manager', 0.55, 14],
  pencil: ['manager', 0.6, 15],
  send: ['manager', 0.6, 15],
  ask_for_changes: ['client', 0.75, 11],
  approve: ['client', 0.75, 11],
  second_round: ['manager', 0.85, 16],
  place: ['manager', 0.9, 16],
  edit_after: ['manager', 0.97, 9],
  mark_out: ['manager', 1, 9],
};

const MADE: readonly Act[] = ['ask', 'accept', 'assign', 'begin', 'make'];
const SENT: readonly Act[] = [...MADE, 'check', 'send'];
const PLACED: readonly Act[] = [...SENT, 'approve', 'place'];

/** The way of a piece to each ending: what happened to it, in this order. */
const WAYS: Record<Ending, readonly Act[]> = {
  asked: ['ask'],
  declined: ['ask', 'decline'],
  accepted: ['ask', 'accept'],
  beyond: ['ask', 'accept', 'wish_beyond'],
  assigned: ['ask', 'accept', 'assign'],
  stalled: ['ask', 'accept', 'assign'],
  tight: ['ask', 'accept', 'assign', 'wish_tight'],
  making: ['ask', 'accept', 'assign', 'begin'],
  overrun: ['ask', 'accept', 'assign', 'begin', 'overrun'],
  handed_back: [...MADE, 'hand_back'],
  in_check: MADE,
  ready: [...MADE, 'check'],
  pencilled: [...MADE, 'check', 'pencil'],
  with_client: SENT,
  past_due: SENT,
  changes_asked: [...SENT, 'ask_for_changes'],
  second_round: [...SENT, 'ask_for_changes', 'second_round'],
  approved: [...SENT, 'approve'],
  scheduled: PLACED,
  missed: PLACED,
  changed_after: [...PLACED, 'edit_after'],
  out: [...PLACED, 'mark_out'],
};

/** What happens in the present itself: it asks for the plan as it stands today. */
const AT_PRESENT = new Set<Act>(['wish_tight', 'wish_beyond', 'overrun']);

/** Between one act and the next of a piece, at the least. */
const APART_MINUTES = 10;
/** The last act of the past lies so long ago. */
const AGO_MINUTES = 20;

const msOf = (at: InstantText): number => Temporal.Instant.from(at).epochMilliseconds;
export const textOf = (ms: number): InstantText => Temporal.Instant.fromEpochMilliseconds(ms).toString();
const MINUTE = 60_000;

/** Wall clocks of zones, each question reckoned once. Plans of one story at many presents share them. */
export class WallClocks {
  private readonly moments = new Map<string, number>();
  private readonly days = new Map<string, Day>();

  /** Milliseconds since 1970 of a time of day in a zone; a time in a gap moves on by the length of the gap. */
  msAt(on: Day, at: string, zone: string): number {
    return kept(this.moments, `${on} ${at} ${zone}`, () => msOf(toInstantAfterGap(on, getTimeOfDay(at), zone)));
  }

  /** The day that a moment has in a zone. */
  dayAt(ms: number, zone: string): Day {
    return kept(this.days, `${ms} ${zone}`, () => dayIn(textOf(ms), zone));
  }
}

function kept<T>(known: Map<string, T>, key: string, reckon: () => T): T {
  const found = known.get(key) ?? reckon();
  known.set(key, found);
  return found;
}

/** Today where somebody is: the day of a client, of a person. */
export const todayOf = (now: InstantText, of: { readonly zone: string }): Day => dayIn(now, of.zone);

/** Who does steps of a skill for a client. */
export function doerFor(client: ClientKey, skill: string): PersonKey {
  const told = CLIENTS[client];
  return skill === 'write' ? told.writer : skill === 'check' ? told.manager : skill === 'film' ? 'teo' : told.designer;
}

function zoneOf(piece: StoryPiece, whose: Whose): string {
  const told = CLIENTS[piece.client];
  if (whose === 'client') return told.zone;
  const maker = ROUTES[piece.route].steps.find((step) => step.kind === 'make');
  return PEOPLE[whose === 'manager' ? told.manager : doerFor(piece.client, maker?.skill ?? 'write')].zone;
}

/**
 * Puts moments in order: each follows the one before by ten minutes at least, and the last is not after `end`. What is wanted too early
 * moves on; where the end leaves no room, all before it move back.
 */
export function inTurn(wanted: readonly number[], end: number): number[] {
  const apart = APART_MINUTES * MINUTE;
  const times = [...wanted];
  for (let index = 1; index < times.length; index++) times[index] = Math.max(times[index] ?? 0, (times[index - 1] ?? -Infinity) + apart);
  let latest = end;
  for (let index = times.length - 1; index >= 0; index--) {
    times[index] = Math.min(times[index] ?? 0, latest);
    latest = (times[index] ?? 0) - apart;
  }
  return times;
}

/** One story as seen from one present. */
class Seen {
  private readonly nowMs: number;
  private readonly present: number;

  constructor(
    now: InstantText,
    private readonly clocks: WallClocks,
  ) {
    this.nowMs = msOf(now);
    this.present = this.nowMs - AGO_MINUTES * MINUTE;
  }

  private todayIn(zone: string): Day {
    return this.clocks.dayAt(this.nowMs, zone);
  }

  wishOn(piece: StoryPiece): Day | null {
    return piece.inDays === null ? null : addDays(this.todayIn(CLIENTS[piece.client].zone), piece.inDays);
  }

  /** When the placements of a piece go out: at the client's usual time, the first on the day wished for, the others on the day after it. */
  publishTimes(piece: StoryPiece): number[] {
    const on = this.wishOn(piece);
    const { usualTime, zone } = CLIENTS[piece.client];
    return on === null ? [] : piece.channels.map((_, index) => this.clocks.msAt(addDays(on, Math.min(index, 1)), usualTime, zone));
  }

  /** When an act would be, if nothing else were: a share of the way from the asking to today, at its hour of a weekday, where its doer is. */
  private wanted(piece: StoryPiece, act: Act): number {
    const how = ACTS[act];
    if (!how) throw new Error(`nothing says when ${act} happens`);
    const [whose, share, hour] = how;
    const zone = zoneOf(piece, whose);
    const endDaysAgo = Math.max(0, -(piece.inDays ?? 0));
    let on = addDays(this.todayIn(zone), -Math.round(endDaysAgo + (piece.askedDaysAgo - endDaysAgo) * (1 - share)));
    while (weekdayOf(on) > 5) on = addDays(on, -1);
    return this.clocks.msAt(on, `${String(hour).padStart(2, '0')}:00`, zone);
  }

  momentsOf(piece: StoryPiece): Moment[] {
    const acts = WAYS[piece.ending];
    const past = acts.filter((act) => !AT_PRESENT.has(act) && act !== 'mark_out');
    const publish = this.publishTimes(piece);
    // what was placed was placed before it went out, and before it was missed
    const end = past.includes('place') ? Math.min(this.present, Math.min(...publish) - APART_MINUTES * MINUTE) : this.present;
    const times = inTurn(
      past.map((act) => this.wanted(piece, act)),
      end,
    );
    const moments = past.map((act, index) => ({ piece, act, atMs: times[index] ?? 0 }));
    if (acts.includes('mark_out')) moments.push({ piece, act: 'mark_out', atMs: this.markedOut(piece, publish) });
    for (const act of acts) if (AT_PRESENT.has(act)) moments.push({ piece, act, atMs: this.nowMs });
    return moments;
  }

  /** The manager says that it is out on the morning after the last placement's day, and not before it was. */
  private markedOut(piece: StoryPiece, publish: readonly number[]): number {
    const last = Math.max(...publish);
    const zone = zoneOf(piece, 'manager');
    const morning = this.clocks.msAt(addDays(this.clocks.dayAt(last, zone), 1), '09:00', zone);
    const at = Math.min(morning, this.present);
    if (at < last + APART_MINUTES * MINUTE) throw new Error(`“${piece.title}” is not out yet at ${textOf(this.nowMs)}`);
    return at;
  }
}

/**
 * Plans the whole story: when everything happens, as seen from `now`. Each moment is reckoned in the zone of whom it concerns, and each
 * follows from the one before: asked, then accepted, made, sent, decided, placed, and out.
 */
export function planStory(now: InstantText, pieces: readonly StoryPiece[], clocks = new WallClocks()): StoryPlan {
  const seen = new Seen(now, clocks);
  const moments = pieces.flatMap((piece) => seen.momentsOf(piece));
  const isPresent = (moment: Moment) => AT_PRESENT.has(moment.act);
  return {
    now,
    moments: [...moments.filter((moment) => !isPresent(moment)).sort((a, b) => a.atMs - b.atMs), ...moments.filter(isPresent)],
    wishOn: (piece) => seen.wishOn(piece),
    publishMs: (piece) => seen.publishTimes(piece),
  };
}
