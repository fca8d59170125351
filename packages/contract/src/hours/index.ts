import { IsInt, Max, Min } from 'class-validator';
import { LONGEST_CLOCK_MINUTES } from '@zesting/core';
import { Optional } from '../fields/index.js';

/** Hours that are typed. */
export class HoursBody {
  @IsInt()
  @Min(1)
  @Max(LONGEST_CLOCK_MINUTES)
  minutes: number;
}

/** Stops a clock. */
export class StopClockBody {
  /** how long it was, where that is not what the clock says; needed where it was forgotten */
  @Optional()
  @IsInt()
  @Min(1)
  @Max(LONGEST_CLOCK_MINUTES)
  minutes?: number;
}

/** The clock that one has running. */
export class ClockShape {
  stepId: string;
  stepTitle: string;
  pieceId: string;
  pieceTitle: string;
  startedAt: string;
}

export class OwnClockShape {
  /** null: none runs */
  clock: ClockShape | null;
}

export class WorkedShape {
  id: string;
  personName: string;
  /** the day of whoever worked */
  on: string;
  /** null: its clock runs */
  minutes: number | null;
  canRemove: boolean;
}

/** The hours of a step: all of them for who manages, else one's own. */
export class StepHoursShape {
  minutes: number;
  worked: WorkedShape[];
}
