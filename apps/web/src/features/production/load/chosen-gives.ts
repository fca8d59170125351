import type { GivenEndShape, LeftStepShape, ProposedGiveShape, StaffingProposalShape } from '@zesting/contract';

/** What somebody makes of a proposal. */
export interface Choosing {
  /** steps of it that are not given */
  readonly leftOut: ReadonlySet<string>;
  /** by step, who takes it instead of who is proposed, or where nobody is */
  readonly instead: ReadonlyMap<string, string>;
}

export const AS_PROPOSED: Choosing = { leftOut: new Set(), instead: new Map() };

/** Takes steps in or leaves them out. */
export function putTaken({ leftOut, instead }: Choosing, stepIds: readonly string[], isTaken: boolean): Choosing {
  const kept = [...leftOut].filter((id) => !stepIds.includes(id));
  return { leftOut: new Set(isTaken ? kept : [...kept, ...stepIds]), instead };
}

/** Gives a step to somebody. @param personId empty: to nobody, where nobody is proposed */
export function putDoer({ leftOut, instead }: Choosing, stepId: string, personId: string): Choosing {
  const next = new Map(instead);
  if (personId === '') next.delete(stepId);
  else next.set(stepId, personId);
  return { leftOut, instead: next };
}

const withDoer = (give: ProposedGiveShape, personId: string): ProposedGiveShape => {
  const other = give.others.find((one) => one.personId === personId);
  return other ? { ...give, personId, personName: other.name, why: other.why, cost: other.cost } : give;
};

const giveOf = ({ others, ...step }: LeftStepShape, personId: string): ProposedGiveShape[] =>
  others
    .filter((one) => one.personId === personId)
    .map(({ name: personName, why, cost }) => {
      const who = { fromName: null, personId, personName, why, cost, others };
      return { ...step, ...who, predictedFinishOn: null, latestFinishOn: null };
    });

/** All that is given as it is chosen: of what is proposed, and of what nobody is proposed for. */
export function givesOf(
  { gives, left }: Pick<StaffingProposalShape, 'gives' | 'left'>,
  { leftOut, instead }: Choosing,
): ProposedGiveShape[] {
  const chosen = gives
    .filter(({ stepId }) => !leftOut.has(stepId))
    .map((give) => withDoer(give, instead.get(give.stepId) ?? give.personId));
  return [...chosen, ...left.flatMap((step) => giveOf(step, instead.get(step.stepId) ?? ''))];
}

/** The lines of the proposal with who takes each as it is chosen, and its end as it was reckoned last. */
export function linesOf(gives: readonly ProposedGiveShape[], { instead }: Choosing, ends: readonly GivenEndShape[]): ProposedGiveShape[] {
  const endOf = new Map(ends.map((end) => [end.stepId, end]));
  return gives.map((give) => ({ ...withDoer(give, instead.get(give.stepId) ?? give.personId), ...endOf.get(give.stepId) }));
}

/** Whether everything is given as it is proposed. */
export const isAsProposed = ({ gives }: Pick<StaffingProposalShape, 'gives'>, { leftOut, instead }: Choosing): boolean =>
  leftOut.size === 0 &&
  [...instead].every(([stepId, personId]) => gives.some((give) => give.stepId === stepId && give.personId === personId));
