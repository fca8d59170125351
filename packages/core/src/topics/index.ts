/** A branch of a pillar: a topic, or with a parent a subtopic of it. */
export interface Topic {
  readonly id: string;
  readonly pillarId: string;
  /** the topic of which it is a subtopic; null: it is a topic */
  readonly parentId: string | null;
}

/** What a matrix of subjects and treatments comes to. */
export interface MatrixSize {
  readonly pillars: number;
  readonly topics: number;
  readonly subtopics: number;
  /** what stands in a row: subtopics, and topics without any */
  readonly leaves: number;
  /** at least one: without treatments each leaf can be treated once */
  readonly treatments: number;
  /** leaves × treatments */
  readonly cells: number;
}

/** Whether a topic stands in a row of its own: a subtopic, or a topic without any. */
export const leavesOf = <T extends Topic>(topics: readonly T[]): T[] => {
  const parents = new Set(topics.flatMap(({ parentId }) => parentId ?? []));
  return topics.filter(({ id }) => !parents.has(id));
};

/**
 * The size of a matrix: how many subjects there are, and in how many ways each can be treated. 3 pillars of 4 topics of 6 subtopics are 72 subjects,
 * 216 pieces at 3 treatments.
 * @param treatments how many there are
 */
export function matrixSize(pillars: number, topics: readonly Topic[], treatments: number): MatrixSize {
  const leaves = leavesOf(topics).length;
  const ways = Math.max(1, treatments);
  const subtopics = topics.filter(({ parentId }) => parentId !== null).length;
  return { pillars, topics: topics.length - subtopics, subtopics, leaves, treatments: ways, cells: leaves * ways };
}

/** How many months cells last at a rate; null where nothing is taken. @param perMonth pieces a month */
export const monthsLasting = (cells: number, perMonth: number): number | null => (perMonth > 0 ? cells / perMonth : null);

/**
 * Branches of which nothing was used, neither they nor what is below: of each only the topmost, since what it holds is unused too.
 * @param used ids of the topics that were used
 */
export function unusedBranches(topics: readonly Topic[], used: ReadonlySet<string>): string[] {
  const touched = new Set(used);
  for (const { id, parentId } of topics) if (parentId !== null && used.has(id)) touched.add(parentId);
  return topics.filter(({ id, parentId }) => !touched.has(id) && (parentId === null || touched.has(parentId))).map(({ id }) => id);
}

/** Topics as a tree read from the top: each followed by its subtopics, in the order given. */
export function inTreeOrder<T extends Topic>(pillarIds: readonly string[], topics: readonly T[]): T[] {
  const below = new Map<string, T[]>();
  for (const topic of topics) {
    const key = topic.parentId ?? `pillar ${topic.pillarId}`;
    const list = below.get(key);
    if (list) list.push(topic);
    else below.set(key, [topic]);
  }
  return pillarIds.flatMap((pillarId) =>
    (below.get(`pillar ${pillarId}`) ?? []).flatMap((topic) => [topic, ...(below.get(topic.id) ?? [])]),
  );
}
