import type { LineRowShape, LineStepShape } from '@zesting/contract';
import { isFree } from '@zesting/core';

/** The columns: what is out is no work any more, what is on the shelf neither. */
export const STAGE_COLUMNS = ['planned', 'in_production', 'in_review', 'with_client', 'approved', 'scheduled'] as const;
export type StageColumn = (typeof STAGE_COLUMNS)[number];

/** What moving a piece to another stage means: something that is done at once, or a place where it is done. */
export type StageMove =
  | { readonly kind: 'do'; readonly path: string; readonly words: string }
  | { readonly kind: 'go'; readonly address: string; readonly words: string }
  | { readonly kind: 'no'; readonly why: string };

type Row = Pick<LineRowShape, 'id' | 'stage' | 'steps'>;

const no = (why: string): StageMove => ({ kind: 'no', why });
const names = (steps: readonly LineStepShape[]): string => steps.map(({ title }) => `“${title}”`).join(', ');

/** Open steps of a piece that can be done now. */
export function atHand({ steps }: Pick<LineRowShape, 'steps'>): LineStepShape[] {
  const finished = new Set(steps.filter(({ finishedOn }) => finishedOn !== null).map(({ id }) => id));
  const known = new Set(steps.map(({ id }) => id));
  return steps.filter(
    ({ finishedOn, predecessorIds }) =>
      finishedOn === null &&
      isFree(
        predecessorIds.filter((id) => known.has(id)),
        finished,
      ),
  );
}

/** What it means to move a piece to a stage, or why it means nothing there. A stage follows from what is done: it is never set by hand. */
export function stageMove(row: Row, to: StageColumn): StageMove {
  const open = row.steps.filter(({ finishedOn }) => finishedOn === null);
  const now = atHand(row);
  const [making] = now.filter(({ kind }) => kind === 'make');
  const check = now.find(({ kind }) => kind === 'check');
  const before = open.filter(({ kind }) => kind !== 'sign_off');
  if (row.stage === to) return no('It is there already.');
  if (row.stage === 'with_client')
    return no('The client has it: their word is awaited. What they say by telephone is recorded under Sign-off.');
  switch (to) {
    case 'planned':
      return no('What was begun stays begun.');
    case 'in_production':
      if (row.stage === 'in_review' && check)
        return { kind: 'go', address: `/pieces/${row.id}?open=back-${check.id}`, words: `Hand back from “${check.title}”` };
      if (!making) return no(open.length === 0 ? 'All of its steps are done.' : `“${open[0]?.title ?? ''}” comes first.`);
      return making.startedOn === null
        ? { kind: 'do', path: `/steps/${making.id}/begin`, words: `Begin “${making.title}”` }
        : no(`“${making.title}” is begun already.`);
    case 'in_review': {
      const makers = open.filter(({ kind }) => kind === 'make');
      if (!making) return no(makers.length > 0 ? `${names(makers)} waits for others.` : 'It was checked.');
      const [next] = open.filter(({ predecessorIds }) => predecessorIds.includes(making.id));
      if (makers.length > 1) return no(`${names(makers)} come before it is checked.`);
      if (next?.kind !== 'check') return no('Its route has no check after this.');
      return { kind: 'do', path: `/steps/${making.id}/hand-in`, words: `Hand in “${making.title}”` };
    }
    case 'with_client':
      if (check && before.length === 1) return no(`“${check.title}” is not passed yet: pass it, then it can be sent.`);
      if (before.length > 0) return no(`${names(before)} ${before.length === 1 ? 'comes' : 'come'} first.`);
      if (open.length === 0) return no('It is signed off.');
      return { kind: 'go', address: '/sign-off', words: 'Send it to the client' };
    case 'approved':
      return no('The client’s word makes it so.');
    case 'scheduled':
      return row.stage === 'approved'
        ? { kind: 'go', address: '/calendar', words: 'Give it its days' }
        : no('What is not signed off is pencilled at most.');
  }
}

/** What can be done with a piece now, wherever it leads. */
export const movesOf = (row: Row): (Exclude<StageMove, { kind: 'no' }> & { readonly to: StageColumn })[] =>
  STAGE_COLUMNS.flatMap((to) => {
    const move = stageMove(row, to);
    return move.kind === 'no' ? [] : [{ ...move, to }];
  });
