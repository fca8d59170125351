import type { FillSlotBody, PlanSlotShape, SlotCandidateShape } from '@zesting/contract';
import type { FitReason, Misfit } from '@zesting/core';
import { count, dayWords } from '../../lib/format';

/** Whether neither a slot nor what is put into it says how it is made: then somebody has to. */
export const lacksFormat = (slot: PlanSlotShape, { kind, formatId }: SlotCandidateShape): boolean =>
  kind === 'idea' && formatId === null && slot.formatId === null;

/** What a slot is filled with, as the server takes it. */
export function filledWith({
  kind,
  id,
}: Pick<SlotCandidateShape, 'kind' | 'id'>): Pick<FillSlotBody, 'ideaId' | 'placementId' | 'againId'> {
  switch (kind) {
    case 'idea':
      return { ideaId: id };
    case 'piece':
      return { placementId: id };
    case 'again':
      return { againId: id };
  }
}

interface Named {
  readonly pillar: (id: string | null) => string | undefined;
  readonly format: (id: string | null) => string | undefined;
}

const HIGH_POINTS = 14;

/** What speaks for a candidate in a slot, in words, what weighs most first; what every candidate has is not said. */
export function reasonWords(reasons: readonly FitReason[], slot: PlanSlotShape, candidate: SlotCandidateShape, named: Named): string[] {
  const weighty = [...reasons].sort((a, b) => Math.abs(b.points) - Math.abs(a.points));
  return weighty.flatMap(({ what, points }) => {
    switch (what) {
      case 'fills':
        return [];
      case 'pillar':
        return `${named.pillar(candidate.pillarId) ?? 'its pillar'} as asked`;
      case 'format':
        return `${named.format(candidate.formatId) ?? 'its format'} as asked`;
      case 'theme':
        return `speaks to “${slot.theme}”`;
      case 'season':
        return `speaks to ${slot.seasons.filter((name) => candidate.seasons.includes(name)).join(', ')}`;
      case 'turn':
        return 'its subject has its turn this month';
      case 'begun':
        return 'under way already';
      case 'stock':
        return 'from the stock, as asked';
      case 'again':
        return 'was out before';
      case 'worth':
        return points >= HIGH_POINTS ? 'weighed high' : [];
      case 'expires':
        return candidate.expiresOn ? `fresh until ${dayWords(candidate.expiresOn)}` : [];
      case 'waits':
        return `${candidate.kind === 'again' ? 'rests' : 'waits'} for ${count(Math.floor(candidate.waitsDays / 7), 'week')}`;
      case 'tight':
        return 'only just in time';
    }
  });
}

/** Why a candidate cannot stand in a slot. @param readyOn the earliest day on which it could */
export function misfitWords(
  misfit: Misfit,
  slot: PlanSlotShape,
  candidate: SlotCandidateShape,
  readyOn: string | null,
  named: Named,
): string {
  switch (misfit) {
    case 'channel':
      return 'for another channel';
    case 'stock':
      return 'the slot asks for what was out before';
    case 'pillar':
      return `the slot asks for ${named.pillar(slot.pillarId) ?? 'another pillar'}`;
    case 'format':
      return `the slot asks for ${named.format(slot.formatId) ?? 'another format'}`;
    case 'not_ready':
      return readyOn === null ? 'cannot be ready by then' : `ready on ${dayWords(readyOn)} at the earliest`;
    case 'too_early':
      if (candidate.notBeforeOn === null) return 'not yet';
      return `${candidate.kind === 'again' ? 'rests until' : 'not before'} ${dayWords(candidate.notBeforeOn)}`;
    case 'expired':
      return candidate.expiresOn ? `only until ${dayWords(candidate.expiresOn)}` : 'no longer fresh';
  }
}
