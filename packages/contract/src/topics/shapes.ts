/** What was made of a subject, or is to be. */
export class TopicUseShape {
  topicId: string;
  /** empty: none in particular */
  treatment: string;
  kind: 'idea' | 'piece';
  /** the idea's id, or the piece's */
  id: string;
  title: string;
  /** the month in which it goes or went out; null: it has no day yet */
  month: string | null;
}

export class TopicShape {
  id: string;
  pillarId: string;
  parentId: string | null;
  name: string;
  /** the months it is put into, `YYYY-MM` */
  months: string[];
  version: number;
}

export class MatrixSizeShape {
  pillars: number;
  topics: number;
  subtopics: number;
  leaves: number;
  treatments: number;
  cells: number;
  /** cells of which nothing was made nor is an idea of */
  free: number;
  /** pieces a month by the rhythm of the next twelve weeks */
  perMonth: number;
  /** months that all cells, and the free ones, last at that; null: the rhythm takes none */
  lastsMonths: number | null;
  freeLastsMonths: number | null;
}

/** What a client's content is about. */
export class TopicsShape {
  /** in the order of the tree: each topic followed by its subtopics */
  topics: TopicShape[];
  /** archived branches, which can come back */
  archived: TopicShape[];
  treatments: string[];
  treatmentsVersion: number;
  uses: TopicUseShape[];
  size: MatrixSizeShape;
  /** topmost branches of which nothing was made in the last twelve months, nor is to be */
  unused: string[];
  thisMonth: string;
}

export class TopicsMadeShape {
  topicIds: string[];
}

export class TopicIdeaMadeShape {
  ideaId: string;
}
