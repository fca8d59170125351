import type { Danger } from '../backplan/index.js';
import type { SendingOfPlacement } from '../sending/index.js';
import type { Day, InstantText } from '../time/index.js';

/** The desk's lists, first match wins: most dangerous first. */
export const RECKONING_LISTS = [
  'trouble',
  'overdue',
  'out_of_reach',
  'changed_after_sign_off',
  'returned',
  'will_be_late',
  'no_doer',
  'to_be_asked',
  'with_client_past_due',
  'to_be_sent',
  'signed_undated',
  'with_client',
  'undated',
  'on_course',
] as const;
export type ReckoningList = (typeof RECKONING_LISTS)[number];

export const PIECE_STAGES = [
  'planned',
  'in_production',
  'in_review',
  'with_client',
  'approved',
  'scheduled',
  'published',
  'shelved',
] as const;
export type PieceStage = (typeof PIECE_STAGES)[number];

/** What production shows: what is open, what is done (out or on the shelf), or both. */
export const PIECES_SHOWN = ['open', 'done', 'all'] as const;
export type PiecesShown = (typeof PIECES_SHOWN)[number];

/** Newest first, by the day aimed at, or by slack with the least first. */
export const PIECE_ORDERS = ['newest', 'aim', 'slack'] as const;
export type PieceOrder = (typeof PIECE_ORDERS)[number];

/** How a placement stands. *sending*, *unsure* and *failed* come with going out by itself. */
export const PLACEMENT_STATES = ['undated', 'pencilled', 'scheduled', 'sending', 'out', 'missed', 'failed', 'unsure', 'cancelled'] as const;
export type PlacementState = (typeof PLACEMENT_STATES)[number];

/** A placement as stored, with what sign-off says about it. */
export interface PlacementFacts {
  readonly publishAt: InstantText | null;
  readonly out: boolean;
  readonly cancelled: boolean;
  readonly signed: boolean;
  /** its time has passed */
  readonly passed: boolean;
  /** it goes out by itself, and may still do so although its time has passed */
  readonly inReach: boolean;
  /** how its latest sending stands */
  readonly sending: SendingOfPlacement | null;
}

/** Derives a placement's state, first match wins. */
export function placementState(placement: PlacementFacts): PlacementState {
  if (placement.cancelled) return 'cancelled';
  if (placement.out) return 'out';
  if (placement.sending !== null) return placement.sending;
  if (placement.publishAt === null) return 'undated';
  if (placement.passed && !(placement.signed && placement.inReach)) return 'missed';
  return placement.signed ? 'scheduled' : 'pencilled';
}

export interface PieceFacts {
  readonly shelved: boolean;
  readonly placements: readonly PlacementState[];
  /** all parts of the content as it stands are signed */
  readonly signed: boolean;
  /** a part was signed, was edited, and is not signed now */
  readonly voided: boolean;
  /** in an open packet */
  readonly inPacket: boolean;
  /** changes asked and the rework not done */
  readonly returned: boolean;
  readonly packetDueOn: Day | null;
  /** the client's date now */
  readonly clientTodayOn: Day;
  readonly stepBegun: boolean;
  /** all before sign-off is finished, it is not signed, and it is in no open packet */
  readonly toBeSent: boolean;
  /** the step at hand is a check, in whatever round */
  readonly checkAtHand: boolean;
  /** a step that could start has nobody to do it */
  readonly noDoer: boolean;
  /** the client could bring what is needed, and nobody has asked it */
  readonly toBeAsked: boolean;
  /** by when the client was asked to bring what it has not brought yet; null where nothing was asked */
  readonly materialDueOn: Day | null;
  readonly dated: boolean;
  readonly danger: Danger | null;
}

/** Derives a piece's stage, first match wins. */
export function pieceStage(piece: PieceFacts): PieceStage {
  const live = piece.placements.filter((state) => state !== 'cancelled');
  if (piece.shelved) return 'shelved';
  if (live.length > 0 && live.every((state) => state === 'out')) return 'published';
  if (live.length > 0 && live.every((state) => state === 'out' || state === 'scheduled')) return 'scheduled';
  if (piece.signed) return 'approved';
  if (piece.inPacket && !piece.returned) return 'with_client';
  if (piece.checkAtHand) return 'in_review';
  return piece.stepBegun || piece.returned || piece.inPacket ? 'in_production' : 'planned';
}

/** Open: not shelved, and not all out. */
export const isOpen = (piece: PieceFacts): boolean => !['shelved', 'published'].includes(pieceStage(piece));

/** The one list on which an open piece stands; null for a piece that is not open. */
export function reckon(piece: PieceFacts): ReckoningList | null {
  if (!isOpen(piece)) return null;
  const has = (state: PlacementState) => piece.placements.includes(state);
  if (has('unsure') || has('failed') || has('missed')) return 'trouble';
  if (piece.danger === 'overdue') return 'overdue';
  if (piece.danger === 'out_of_reach') return 'out_of_reach';
  if (piece.voided) return 'changed_after_sign_off';
  if (piece.returned) return 'returned';
  if (piece.danger === 'will_be_late') return 'will_be_late';
  if (piece.noDoer) return 'no_doer';
  if (piece.toBeAsked) return 'to_be_asked';
  const isPast = (dueOn: Day | null) => dueOn !== null && dueOn < piece.clientTodayOn;
  if ((piece.inPacket && isPast(piece.packetDueOn)) || isPast(piece.materialDueOn)) return 'with_client_past_due';
  if (piece.toBeSent) return 'to_be_sent';
  if (piece.signed && (has('undated') || !piece.dated)) return 'signed_undated';
  if (piece.inPacket) return 'with_client';
  return piece.dated ? 'on_course' : 'undated';
}

/** What orders the desk within a list. */
export interface DeskKey {
  readonly list: ReckoningList;
  /** the first latest start or finish that is lost if nothing is done; null when undated */
  readonly lateFromOn: Day | null;
  readonly slackDays: number | null;
  readonly createdAt: InstantText;
}

/** Compares two lines of the desk: list, then the date from which it is late, then least slack, then age. */
export function compareDesk(a: DeskKey, b: DeskKey): number {
  return (
    RECKONING_LISTS.indexOf(a.list) - RECKONING_LISTS.indexOf(b.list) ||
    (a.lateFromOn ?? '9999').localeCompare(b.lateFromOn ?? '9999') ||
    (a.slackDays ?? Infinity) - (b.slackDays ?? Infinity) ||
    a.createdAt.localeCompare(b.createdAt) ||
    0
  );
}
