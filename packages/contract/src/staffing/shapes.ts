/** Why somebody is proposed: they usually do it for the client, are of the client's own people, or have the skill. */
export type ProposedFor = 'usual' | 'own' | 'skill';

/** Somebody who could take a step as well. */
export class AbleDoerShape {
  personId: string;
  name: string;
  why: ProposedFor;
  /** as it has it in what is proposed */
  cost: number | null;
}

/** A step, and who is proposed for it. */
export class ProposedGiveShape {
  stepId: string;
  /** what giving it is checked against */
  version: number;
  stepTitle: string;
  pieceId: string;
  pieceTitle: string;
  clientId: string;
  minutes: number;
  /** who has it now; null: nobody */
  fromName: string | null;
  personId: string;
  personName: string;
  why: ProposedFor;
  /** what its hours are paid, in the smallest unit; null: hours that are paid anyway, nothing is agreed, or the viewer is not told rates */
  cost: number | null;
  /** who else could take it, the likeliest first */
  others: AbleDoerShape[];
  /** when it is predicted to end with them; null: never */
  predictedFinishOn: string | null;
  /** when it must end, by the plan with them; null: no day is aimed at */
  latestFinishOn: string | null;
}

/** A step that nobody is proposed for. */
export class LeftStepShape {
  stepId: string;
  version: number;
  minutes: number;
  stepTitle: string;
  pieceId: string;
  pieceTitle: string;
  clientId: string;
  skill: string;
  /** nobody has the skill and may work for the client; or they have no hours before it would be very late */
  why: 'nobody_able' | 'no_hours';
  /** who has the skill, and not the hours */
  others: AbleDoerShape[];
}

/** A piece, and the working days that it is late, as it is and with what is proposed. */
export class ProposedPieceShape {
  pieceId: string;
  title: string;
  clientId: string;
  was: number;
  after: number;
}

/** When a step would end with whoever takes it. */
export class GivenEndShape {
  stepId: string;
  /** null: never */
  predictedFinishOn: string | null;
  /** null: no day is aimed at */
  latestFinishOn: string | null;
}

/** What it would come to if steps were given as somebody chose. */
export class StaffingOutcomeShape {
  ends: GivenEndShape[];
  /** pieces that become later by it, or stay late with it, the worst first */
  pieces: ProposedPieceShape[];
  /** so many pieces of clients that the viewer does not look after become later by it */
  othersLater: number;
}

/** Who could take the steps of a period that nobody has. */
export class StaffingProposalShape {
  /** the soonest due first */
  gives: ProposedGiveShape[];
  left: LeftStepShape[];
  /** pieces that become later by it, or stay late with it, the worst first */
  pieces: ProposedPieceShape[];
  /** so many pieces of clients that the viewer does not look after become later by it */
  othersLater: number;
  /** so many steps more fall into the period than are looked at together */
  moreSteps: number;
  /** true where the programme's answer is proven to be its best */
  isProven: boolean;
  milliseconds: number;
  /** of what hours cost, by ISO 4217 */
  currency: string;
}
