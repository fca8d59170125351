import { IsOptional, IsUUID } from 'class-validator';

/** One who could do a step. Load and time off are hours and dates; no titles of other clients' pieces. */
export class CandidateShape {
  personId: string;
  name: string;
  role: string;
  zone: string;
  /** 0 where the person lacks the skill, else 1 to 3 */
  skillLevel: number;
  openSteps: number;
  openMinutes: number;
  /** days off between today and the step's latest finish */
  timeOffOn: string[];
  /** the earliest finish if given to this person */
  earliestFinishOn: string | null;
  slackDays: number | null;
}

export class AssignBody {
  @IsOptional()
  @IsUUID()
  personId: string | null;
}
