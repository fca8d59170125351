/** Why somebody is proposed: they usually do it for the client, are of the client's own people, or have the skill. */
export type ProposedFor = 'usual' | 'own' | 'skill';

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
  /** when it is predicted to end with them; null: never */
  predictedFinishOn: string | null;
  /** when it must end, by the plan with them; null: no day is aimed at */
  latestFinishOn: string | null;
}

/** A step that nobody is proposed for. */
export class LeftStepShape {
  stepId: string;
  stepTitle: string;
  pieceId: string;
  pieceTitle: string;
  clientId: string;
  skill: string;
  /** nobody has the skill and may work for the client; or they have no hours before it would be very late */
  why: 'nobody_able' | 'no_hours';
}

/** A piece, and the working days that it is late, as it is and with what is proposed. */
export class ProposedPieceShape {
  pieceId: string;
  title: string;
  clientId: string;
  was: number;
  after: number;
}

/** Who could take the steps of a period that nobody has. */
export class StaffingProposalShape {
  /** the soonest due first */
  gives: ProposedGiveShape[];
  left: LeftStepShape[];
  /** pieces that become later by it, or stay late with it, the worst first */
  pieces: ProposedPieceShape[];
  /** so many pieces of clients that are not asked about become later by it */
  othersLater: number;
  /** so many steps more fall into the period than are looked at together */
  moreSteps: number;
  /** true where the programme's answer is proven to be its best */
  isProven: boolean;
  milliseconds: number;
}
