import { IsIn, IsString, IsUUID, MaxLength } from 'class-validator';
import { IsDay, IsNotBlank, Optional, OrNull } from '../fields/index.js';
import type { TeamMateShape } from '../team-notes/index.js';

/** Whose an obstacle is, who must act for it to go: one of the team, the client, or somebody outside. */
export const OBSTACLE_OF = ['person', 'client', 'outside'] as const;
export type ObstacleOf = (typeof OBSTACLE_OF)[number];

/** What stands in the way, in words. */
export class EditObstacleBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(500)
  words: string;

  @IsIn(OBSTACLE_OF)
  whose: ObstacleOf;

  /** of `person`: who */
  @Optional()
  @OrNull()
  @IsUUID('all')
  personId?: string | null;

  /** the last day on which it is expected to stand; null: nobody knows */
  @Optional()
  @OrNull()
  @IsDay()
  untilOn?: string | null;
}

export class ObstacleBody extends EditObstacleBody {
  /** the step that cannot go on; absent: the whole piece */
  @Optional()
  @OrNull()
  @IsUUID('all')
  stepId?: string | null;
}

export class SettleObstacleBody {
  /** how it went away */
  @Optional()
  @IsString()
  @MaxLength(500)
  words?: string;
}

export class ObstacleShape {
  id: string;
  pieceId: string;
  stepId: string | null;
  stepTitle: string | null;
  words: string;
  whose: ObstacleOf;
  personId: string | null;
  personName: string | null;
  untilOn: string | null;
  raisedBy: string;
  raisedAt: string;
  /** the day it was raised on, and how many days ago that is, where the viewer is */
  sinceOn: string;
  days: number;
  settledAt: string | null;
  settledBy: string | null;
  settledWords: string;
  version: number;
}

export class ObstaclesShape {
  /** what stands in the way now, the oldest first */
  open: ObstacleShape[];
  /** what did, the newest first */
  settled: ObstacleShape[];
  /** whose one can be, beside the client's and somebody's outside */
  team: TeamMateShape[];
}

/** One of what stands in the way anywhere, with its piece. */
export class ObstacleRow extends ObstacleShape {
  clientId: string;
  pieceTitle: string;
  /** it is the viewer who must act */
  isMine: boolean;
}

export class ObstacleRowsShape {
  /** the viewer's first, then the oldest; at most 100 */
  rows: ObstacleRow[];
  total: number;
}
