import type { TopicShape, TopicsShape, TopicUseShape } from '@zesting/contract';

/** Which rows of the matrix are shown. */
export const ROWS_SHOWN = ['all', 'free', 'unused', 'months'] as const;
export type RowsShown = (typeof ROWS_SHOWN)[number];

export interface MatrixRow {
  readonly topic: TopicShape;
  /** whether it stands for itself: a subtopic, or a topic without any */
  readonly isLeaf: boolean;
  readonly isUnused: boolean;
  /** what was made of it, by treatment; where there are no treatments all of it stands under the empty one */
  readonly cells: ReadonlyMap<string, readonly TopicUseShape[]>;
  /** what was made of it in no way, or in one that is gone */
  readonly beside: readonly TopicUseShape[];
}

/** The ways that are columns: without treatments there is one, without a name. */
export const columnsOf = ({ treatments }: Pick<TopicsShape, 'treatments'>): readonly string[] =>
  treatments.length > 0 ? treatments : [''];

/** The rows of the matrix, in the order of the tree. */
export function rowsOf(all: TopicsShape): MatrixRow[] {
  const columns = columnsOf(all);
  const parents = new Set(all.topics.flatMap(({ parentId }) => parentId ?? []));
  const unused = new Set(all.unused);
  const uses = new Map<string, TopicUseShape[]>();
  for (const use of all.uses) {
    const known = uses.get(use.topicId);
    if (known) known.push(use);
    else uses.set(use.topicId, [use]);
  }
  return all.topics.map((topic) => {
    const own = uses.get(topic.id) ?? [];
    const columnOf = ({ treatment }: TopicUseShape) => (all.treatments.length === 0 ? '' : treatment);
    return {
      topic,
      isLeaf: !parents.has(topic.id),
      isUnused: unused.has(topic.id) || (topic.parentId !== null && unused.has(topic.parentId)),
      cells: new Map(columns.map((column) => [column, own.filter((use) => columnOf(use) === column)])),
      beside: own.filter((use) => !columns.includes(columnOf(use))),
    };
  });
}

const hasFree = ({ isLeaf, cells }: MatrixRow): boolean => isLeaf && [...cells.values()].some((uses) => uses.length === 0);

/** The rows that are asked for, by what they have and by words of their names; a topic stays where one of its subtopics does. */
export function rowsShown(rows: readonly MatrixRow[], shown: RowsShown, words: string): MatrixRow[] {
  const text = words.trim().toLowerCase();
  const fits = (row: MatrixRow) =>
    (shown === 'all' || (shown === 'free' ? hasFree(row) : shown === 'unused' ? row.isUnused : row.topic.months.length > 0)) &&
    (text === '' || row.topic.name.toLowerCase().includes(text));
  const kept = new Set(rows.filter(fits).flatMap(({ topic }) => [topic.id, ...(topic.parentId === null ? [] : [topic.parentId])]));
  return rows.filter(({ topic }) => kept.has(topic.id));
}
