import { IsString, IsUUID, MaxLength } from 'class-validator';
import { OrNull } from '../fields/index.js';

/** Says who usually does the steps of a skill for a client. */
export class TeamRoleBody {
  @IsString()
  @MaxLength(60)
  skill: string;

  /** null: nobody in particular */
  @OrNull()
  @IsUUID('all')
  personId: string | null;

  /** whom it replaces, as it was seen; null: nobody */
  @OrNull()
  @IsUUID('all')
  wasId: string | null;
}

/** Says who answers for a client's pieces. */
export class TeamLeadBody {
  /** null: nobody in particular */
  @OrNull()
  @IsUUID('all')
  personId: string | null;

  /** whom they replace, as it was seen; null: nobody */
  @OrNull()
  @IsUUID('all')
  wasId: string | null;
}

/** Who answers for a client's pieces. */
export class TeamLeadShape {
  personId: string;
  name: string;
  /** they have left: nobody answers until somebody else is named */
  hasLeft: boolean;
}

/** Somebody of the agency, by name. */
export class NamedPersonShape {
  personId: string;
  name: string;
}

/** Somebody who could do the steps of a skill for the client. */
export class TeamPersonShape {
  personId: string;
  name: string;
  /** 1 to 3 */
  level: number;
  openSteps: number;
  openMinutes: number;
}

/** One skill, and who usually does its steps for the client. */
export class TeamRoleShape {
  skill: string;
  personId: string | null;
  personName: string | null;
  /** why whoever it is cannot do it now; null: they can */
  cannot: 'left' | 'unskilled' | 'barred' | null;
  /** how many routes have steps of it */
  routes: number;
  /** best first, none that must not work for the client */
  able: TeamPersonShape[];
}

export class TeamShape {
  lead: TeamLeadShape | null;
  /** who could: whoever is with the agency and not barred from the client */
  couldLead: NamedPersonShape[];
  roles: TeamRoleShape[];
}
