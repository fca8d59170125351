import type { TopicsShape, TopicUseShape } from '@zesting/contract';
import { columnsOf, rowsOf, rowsShown } from './matrix';

const topic = (id: string, parentId: string | null = null, months: string[] = []) => ({
  id,
  pillarId: 'p',
  parentId,
  name: id,
  months,
  version: 1,
});
const made = (topicId: string, treatment: string): TopicUseShape => ({
  topicId,
  treatment,
  kind: 'piece',
  id: `${topicId} ${treatment}`,
  title: '',
  month: null,
});
const all = (more: Partial<TopicsShape> = {}): TopicsShape => ({
  topics: [topic('wood'), topic('oak', 'wood', ['2027-03']), topic('ash', 'wood'), topic('metal')],
  archived: [],
  treatments: ['How to', 'Story'],
  treatmentsVersion: 1,
  uses: [made('oak', 'How to'), made('oak', 'Story'), made('ash', 'Story'), made('ash', 'Gone'), made('ash', '')],
  size: {} as TopicsShape['size'],
  unused: ['metal'],
  thisMonth: '2027-03',
  ...more,
});
const ids = (rows: ReturnType<typeof rowsOf>) => rows.map((row) => row.topic.id);

describe('the matrix', () => {
  it('has a row for each branch, and a cell for each way; what was treated otherwise stands beside', () => {
    const rows = rowsOf(all());
    expect(rows.map(({ isLeaf }) => isLeaf)).toEqual([false, true, true, true]);
    const ash = rows[2];
    expect([...(ash?.cells ?? [])].map(([column, uses]) => [column, uses.length])).toEqual([
      ['How to', 0],
      ['Story', 1],
    ]);
    expect(ash?.beside.map(({ treatment }) => treatment)).toEqual(['Gone', '']);
  });

  it('has one column without a name where there are no treatments, and all stands in it', () => {
    const none = all({ treatments: [] });
    expect(columnsOf(none)).toEqual(['']);
    const [, oak, ash] = rowsOf(none);
    expect([oak?.cells.get('')?.length, ash?.cells.get('')?.length, ash?.beside.length]).toEqual([2, 3, 0]);
  });

  it('shows what is asked for, each subtopic with its topic', () => {
    const rows = rowsOf(all());
    expect(ids(rowsShown(rows, 'all', ''))).toEqual(['wood', 'oak', 'ash', 'metal']);
    expect(ids(rowsShown(rows, 'free', ''))).toEqual(['wood', 'ash', 'metal']);
    expect(ids(rowsShown(rows, 'months', ''))).toEqual(['wood', 'oak']);
    expect(ids(rowsShown(rows, 'unused', ''))).toEqual(['metal']);
    expect(ids(rowsShown(rows, 'all', ' AS'))).toEqual(['wood', 'ash']);
    expect(ids(rowsShown(rows, 'free', 'oak'))).toEqual([]);
  });
});
