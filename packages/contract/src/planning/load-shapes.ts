import type { Danger } from '@zesting/core';

/** A step that somebody has in front of them. Of clients that the viewer does not look after only hours and dates are told. */
export class LoadStepShape {
  stepId: string;
  /** what giving it to somebody else is checked against */
  version: number;
  title: string | null;
  pieceId: string | null;
  pieceTitle: string | null;
  clientId: string | null;
  minutes: number;
  spanDays: number;
  startOn: string;
  finishOn: string;
  latestFinishOn: string | null;
  /** the first day on which it can be worked on */
  releasedOn: string;
  danger: Danger | null;
}

/** Days into which more work falls than there are hours, whatever the order. */
export class OverloadShape {
  fromOn: string;
  dueOn: string;
  overMinutes: number;
}

export class LoadPersonShape {
  personId: string;
  name: string;
  role: string;
  zone: string;
  todayOn: string;
  /** of each day seen: the minutes that they work */
  hours: number[];
  /** of each day seen: the minutes that are predicted to be worked, duties too */
  taken: number[];
  overloads: OverloadShape[];
}

/** What one person has in front of them. */
export class PersonLoadShape {
  steps: LoadStepShape[];
}

/** The hours of a client in the month of the first day that is seen. */
export class ClientHoursShape {
  clientId: string;
  /** of steps that ended in it */
  doneMinutes: number;
  /** of steps that are predicted to end in it */
  openMinutes: number;
  /** by the client's allowance; null: hours are not agreed */
  includedMinutes: number | null;
}

export class LoadShape {
  todayOn: string;
  fromOn: string;
  toOn: string;
  people: LoadPersonShape[];
  /** YYYY-MM: the one that the span is about */
  month: string;
  clients: ClientHoursShape[];
}
