/** How long a step that is not finished usually takes, in working days of its doer. */
export class ForecastStepShape {
  stepId: string;
  title: string;
  /** in half of the cases it takes no longer; null where it was never seen to end */
  usualDays: number | null;
  /** in four of five cases it takes no longer */
  mostDays: number | null;
  /** how many cases of the client it rests on, and how many in all */
  own: number;
  all: number;
}

/** How likely a piece is to be ready for its day, going by how long such steps took. */
export class ForecastShape {
  /** from 0 to 1; null where there is no day to make, nothing left to do, or too few cases */
  chance: number | null;
  steps: ForecastStepShape[];
}
