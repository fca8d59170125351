import type { Candidate, Day, OpenSlot, SlottingCase } from '@zesting/core';
import type { PlanMonthShape, PlanSlotShape, SlotCandidateShape } from './shapes.js';

/** What tells a slot of a month from the others. */
export const slotKey = ({ ruleId, on }: Pick<PlanSlotShape, 'ruleId' | 'on'>): string => `${ruleId}@${on}`;

/** Whether something can be put into a slot. */
export const isFree = ({ planned, isPast, blackout }: PlanSlotShape): boolean => planned === null && !isPast && blackout === null;

const toSlot = (slot: PlanSlotShape): OpenSlot => ({
  id: slotKey(slot),
  on: slot.on as Day, // days of the contract's, here and below
  channelId: slot.channelId,
  pillarId: slot.pillarId,
  formatId: slot.formatId,
  fromStock: slot.fromStock,
  themeId: slot.theme,
  seasonIds: slot.seasons,
  taken: slot.planned && { pillarId: slot.planned.pillarId, subjectId: slot.planned.subjectId },
});

const toCandidate = (candidate: SlotCandidateShape): Candidate => ({
  id: candidate.id,
  pillarId: candidate.pillarId,
  formatId: candidate.formatId,
  channelIds: candidate.channelIds,
  themeIds: candidate.themes,
  seasonIds: candidate.seasons,
  subjectId: candidate.subjectId,
  readyOn: candidate.readyOn as Day | null,
  notBeforeOn: candidate.notBeforeOn as Day | null,
  expiresOn: candidate.expiresOn as Day | null,
  worth: candidate.worth,
  hasTurn: candidate.hasTurn,
  isPiece: candidate.kind === 'piece',
  isAgain: candidate.kind === 'again',
  waitsDays: candidate.waitsDays,
});

/** A month as core fills it: what stands in a slot stays; slots that are over or closed are none. */
export function toCase({ slots, candidates, mix, routes }: PlanMonthShape): SlottingCase {
  const readyByFormat: Record<string, Day> = {};
  // of a format the first route is taken
  for (const { formatId, readyOn } of routes) if (readyOn !== null) readyByFormat[formatId] ??= readyOn as Day;
  return {
    slots: slots.filter((slot) => slot.planned !== null || isFree(slot)).map(toSlot),
    candidates: candidates.map(toCandidate),
    owed: Object.fromEntries(mix.flatMap(({ pillarId, owed }) => (pillarId === null ? [] : [[pillarId, owed]]))),
    readyByFormat,
  };
}
