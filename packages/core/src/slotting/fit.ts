import { daysBetween, type Day } from '../time/index.js';
import { wordSimilarity } from '../lookalike/index.js';

/** A slot of a period, in the order of time among the others. */
export interface OpenSlot {
  readonly id: string;
  readonly on: Day;
  readonly channelId: string;
  /** what the rhythm wants here; null: anything */
  readonly pillarId: string | null;
  readonly formatId: string | null;
  /** whether the rhythm wants something here that was out before */
  readonly fromStock: boolean;
  /** the theme of its month or week; null: none */
  readonly themeId: string | null;
  /** the seasons of the client's year in which it lies */
  readonly seasonIds: readonly string[];
  /** what stands in it already and stays: its pillar and subject; null: the slot is free */
  readonly taken: { readonly pillarId: string | null; readonly subjectId: string | null } | null;
}

/** What could stand in a slot: an idea, or a piece without a date there. */
export interface Candidate {
  readonly id: string;
  /** null: of none yet, and so it may be any */
  readonly pillarId: string | null;
  readonly formatId: string | null;
  /** null: on any channel */
  readonly channelIds: readonly string[] | null;
  /** themes that it speaks to */
  readonly themeIds: readonly string[];
  /** seasons that it speaks to */
  readonly seasonIds: readonly string[];
  /** what it is about, below its pillar; null: nobody said */
  readonly subjectId: string | null;
  /** the earliest day on which it can be out: of a piece its own; null: by the format that it takes */
  readonly readyOn: Day | null;
  /** not before, and not after; null: no such day */
  readonly notBeforeOn: Day | null;
  readonly expiresOn: Day | null;
  /** how good it is beside the others, 0 to 1 */
  readonly worth: number;
  /** whether the subject that it is about was put into the period */
  readonly hasTurn: boolean;
  /** whether work has been put into it already */
  readonly isPiece: boolean;
  /** whether it was out before, lasts, and would go out again */
  readonly isAgain: boolean;
  readonly waitsDays: number;
}

export interface SlottingCase {
  readonly slots: readonly OpenSlot[];
  readonly candidates: readonly Candidate[];
  /** how many more pieces of a pillar the mix wants in the period; what is missing or not above 0 is owed nothing */
  readonly owed: Readonly<Record<string, number>>;
  /** the earliest day on which something new of a format can be out; what is missing is not known */
  readonly readyByFormat: Readonly<Record<string, Day>>;
}

/** What speaks for (or, below 0, against) a candidate in a slot, in points. */
export interface FitReason {
  readonly what:
    'fills' | 'pillar' | 'format' | 'theme' | 'season' | 'turn' | 'begun' | 'stock' | 'again' | 'worth' | 'expires' | 'waits' | 'tight';
  readonly points: number;
}

/** A *must* that keeps a candidate out of a slot. */
export type Misfit = 'channel' | 'stock' | 'pillar' | 'format' | 'not_ready' | 'too_early' | 'expired';

export type Fit =
  | { readonly fits: true; readonly points: number; readonly reasons: readonly FitReason[] }
  | { readonly fits: false; readonly misfit: Misfit };

/** Points for a piece of a pillar that the mix is owed, as many times as it is owed. */
export const OWED = 20;
/** Points against two slots one after the other that hold the same pillar. */
export const IN_A_ROW = -15;
/** Points against two slots one after the other that are about the same subject. */
export const SAME_SUBJECT = -25;
const FILLS = 40;
const PILLAR = 30;
const THEME = 25;
const SEASON = 15;
const TURN = 20;
const BEGUN = 25;
const WORTH = 20;
const FORMAT = 15;
/** What was out before stands where the rhythm asks for it; elsewhere it fills a gap that nothing new fills. */
const STOCK = 30;
const AGAIN = -30;
const EXPIRES = 15;
const TIGHT = -10;
/** So near its last day something should be used, and so near its earliest day it is tight. */
const EXPIRES_SOON_DAYS = 21;
const TIGHT_DAYS = 2;
const WAITS_MOST = 10;
const WAITS_DAYS_A_POINT = 14;

function misfitOf(slot: OpenSlot, candidate: Candidate, readyOn: Day | null): Misfit | null {
  if (candidate.channelIds !== null && !candidate.channelIds.includes(slot.channelId)) return 'channel';
  if (slot.fromStock && !candidate.isAgain) return 'stock';
  if (slot.pillarId !== null && candidate.pillarId !== null && slot.pillarId !== candidate.pillarId) return 'pillar';
  if (slot.formatId !== null && candidate.formatId !== null && slot.formatId !== candidate.formatId) return 'format';
  if (readyOn !== null && readyOn > slot.on) return 'not_ready';
  if (candidate.notBeforeOn !== null && slot.on < candidate.notBeforeOn) return 'too_early';
  return candidate.expiresOn !== null && slot.on > candidate.expiresOn ? 'expired' : null;
}

/**
 * Whether a candidate may stand in a slot, and how well. The weights are Zesting's own: filling a slot counts most, then what the rhythm, the
 * theme, the season and the subjects of the period ask for, then work already begun, then how good and how old it is. What was out before stands where the
 * rhythm asks for it, and otherwise only where nothing new does.
 */
export function fitOf(slot: OpenSlot, candidate: Candidate, readyByFormat: SlottingCase['readyByFormat']): Fit {
  const formatId = candidate.formatId ?? slot.formatId;
  const readyOn = candidate.readyOn ?? (formatId === null ? null : (readyByFormat[formatId] ?? null));
  const misfit = misfitOf(slot, candidate, readyOn);
  if (misfit !== null) return { fits: false, misfit };
  const all: FitReason[] = [
    { what: 'fills', points: FILLS },
    { what: 'pillar', points: slot.pillarId !== null && slot.pillarId === candidate.pillarId ? PILLAR : 0 },
    { what: 'format', points: slot.formatId !== null && slot.formatId === candidate.formatId ? FORMAT : 0 },
    { what: 'theme', points: slot.themeId !== null && candidate.themeIds.includes(slot.themeId) ? THEME : 0 },
    { what: 'season', points: candidate.seasonIds.some((id) => slot.seasonIds.includes(id)) ? SEASON : 0 },
    { what: 'turn', points: candidate.hasTurn ? TURN : 0 },
    { what: 'begun', points: candidate.isPiece ? BEGUN : 0 },
    { what: 'stock', points: slot.fromStock ? STOCK : 0 },
    { what: 'again', points: candidate.isAgain && !slot.fromStock ? AGAIN : 0 },
    { what: 'worth', points: Math.round(candidate.worth * WORTH) },
    {
      what: 'expires',
      points: candidate.expiresOn !== null && daysBetween(slot.on, candidate.expiresOn) <= EXPIRES_SOON_DAYS ? EXPIRES : 0,
    },
    { what: 'waits', points: Math.min(WAITS_MOST, Math.floor(candidate.waitsDays / WAITS_DAYS_A_POINT)) },
    { what: 'tight', points: readyOn !== null && daysBetween(readyOn, slot.on) < TIGHT_DAYS ? TIGHT : 0 },
  ];
  const reasons = all.filter(({ points }) => points !== 0);
  return { fits: true, points: reasons.reduce((sum, { points }) => sum + points, 0), reasons };
}

/** The pillar that a slot has with a candidate in it: the candidate's, else what the slot wants. */
export const pillarIn = (slot: OpenSlot, candidate: Candidate): string | null => candidate.pillarId ?? slot.pillarId;

/** Every candidate for one slot, the best first; of equals in their order. Those that may not stand there come last, with the reason. */
export function rankFor(
  slot: OpenSlot,
  { candidates, readyByFormat }: SlottingCase,
): { readonly candidateId: string; readonly fit: Fit }[] {
  const pointsOf = (fit: Fit) => (fit.fits ? fit.points : Number.NEGATIVE_INFINITY);
  return candidates
    .map((candidate, index) => ({ candidateId: candidate.id, index, fit: fitOf(slot, candidate, readyByFormat) }))
    .sort((a, b) => (pointsOf(a.fit) === pointsOf(b.fit) ? a.index - b.index : pointsOf(b.fit) - pointsOf(a.fit)))
    .map(({ candidateId, fit }) => ({ candidateId, fit }));
}

/** A word of a theme that is shorter says too little. */
const LEAST_LETTERS = 4;
/** So alike a stretch of the text must be to a word of the theme: *gardens* to *gardening* is. */
export const THEME_LIKE_ENOUGH = 0.5;

/** The words of a theme that say something. */
export const wordsOfTheme = (theme: string): string[] =>
  theme.match(/[\p{L}\p{N}]+/gu)?.filter((word) => word.length >= LEAST_LETTERS) ?? [];

/** Whether a text speaks to a theme: a word of the theme, or one much like it, stands in it. */
export const isOnTheme = (text: string, theme: string): boolean =>
  wordsOfTheme(theme).some((word) => wordSimilarity(word, text) >= THEME_LIKE_ENOUGH);
