export class QuestionSetShape {
  id: string;
  /** null: for every client */
  clientId: string | null;
  title: string;
  treatment: string;
  questions: string[];
  /** whether it is for the treatment of what is asked about */
  fits: boolean;
  version: number;
}

export class QuestionSetsShape {
  /** those that fit first, then the client's own */
  sets: QuestionSetShape[];
  /** archived ones, which can come back */
  archived: QuestionSetShape[];
}

export class InterviewQuestionShape {
  id: string;
  question: string;
  /** empty: not answered yet */
  answer: string;
  /** who said it, or wrote it down */
  answeredBy: string | null;
  answeredAt: string | null;
  version: number;
}

export class InterviewAboutShape {
  kind: 'idea' | 'piece';
  id: string;
  title: string;
}

/** Questions that were put to somebody, with what was answered. */
export class InterviewShape {
  id: string;
  clientId: string;
  title: string;
  /** null: for the client */
  about: InterviewAboutShape | null;
  /** the contact who answers in the room; null: the team writes it down */
  contactId: string | null;
  /** who is asked; empty: nobody was named */
  answerer: string;
  dueOn: string | null;
  isPastDue: boolean;
  askedBy: string;
  askedAt: string;
  closedAt: string | null;
  answered: number;
  questions: InterviewQuestionShape[];
  version: number;
}

export class InterviewsShape {
  interviews: InterviewShape[];
  /** where the next page begins; null: there is none */
  next: string | null;
  counts: { open: number; closed: number };
}

export class InterviewMadeShape {
  interviewId: string;
}

export class QuestionSetMadeShape {
  setId: string;
}

/** What waits for a contact's knowledge, in the room. */
export class RoomInterviewShape {
  id: string;
  title: string;
  dueOn: string | null;
  isPastDue: boolean;
  questions: InterviewQuestionShape[];
}
