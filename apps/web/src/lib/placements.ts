import type { DuplicateBody, MovedShape, PlacementShape } from '@zesting/contract';
import { toast } from 'sonner';
import { ApiProblem, call, wordsOf } from './api';
import { count, dayWords } from './format';
import { askAlong } from './left-behind';
import { useWrite } from './queries';
import { standingWords } from './words';

export interface Move {
  readonly placement: Pick<PlacementShape, 'id' | 'version' | 'on' | 'at' | 'channelName'>;
  readonly on: string | null;
  readonly at?: string | null;
  /** *this one*, or *all not yet out* by as many days */
  readonly scope?: 'this' | 'all';
}

interface Outcome {
  readonly onSuccess?: () => void;
  readonly onError?: (words: string) => void;
}

/** What a move did, in words: who moved with it, and what becomes late. */
export function moveWords({ placement, lateSteps, earliestPublishOn, others, markers }: MovedShape): string {
  const where = placement.on ? `${dayWords(placement.on)}, ${placement.at ?? ''}` : 'no date';
  const also = others > 0 ? ` ${count(others, 'other placement')} of the piece moved as many days.` : '';
  const late =
    lateSteps.length > 0
      ? ` Late now: ${lateSteps.join(', ')}.${earliestPublishOn ? ` ${dayWords(earliestPublishOn)} can be met.` : ''}`
      : '';
  return `${placement.channelName}: ${where}. ${placement.state === 'pencilled' ? 'Pencilled until it is signed.' : ''}${also}${late}${markers.map((marker) => ` ${standingWords(marker)}.`).join('')}`;
}

const refusal = (error: Error): string =>
  error instanceof ApiProblem && error.code === 'http.changed_meanwhile'
    ? 'Somebody else moved this meanwhile. Look again, then move it.'
    : wordsOf(error);

/** Tells what was done, with an undo beside it. */
function tell(words: string, undo: () => void): void {
  toast(words, { action: { label: 'Undo', onClick: undo } });
}

/** What can be done with placements; each says what it did, and offers to undo it. */
export function usePlacements() {
  const move = useWrite(
    ({ placement, on, at, scope = 'this' }: Move) =>
      call<MovedShape>(`/placements/${placement.id}/date`, {
        method: 'PUT',
        body: { on, at: at ?? null, scope },
        version: placement.version,
      }),
    { quiet: true },
  );
  const act = useWrite(
    ({ id, verb, body }: { id: string; verb: 'swap' | 'duplicate' | 'cancel' | 'restore'; body?: object }) =>
      call<MovedShape>(`/placements/${id}/${verb}`, { method: 'POST', body: body ?? {} }),
    { quiet: true },
  );
  const fell = (done?: Outcome) => (error: Error) => (done?.onError ? done.onError(refusal(error)) : toast.error(refusal(error)));
  return {
    isPending: move.isPending || act.isPending,
    move: (wanted: Move, done?: Outcome): void =>
      move.mutate(wanted, {
        onSuccess: (moved) => {
          const { on, at } = wanted.placement;
          const back: Move = { placement: moved.placement, on, at, ...(wanted.scope ? { scope: wanted.scope } : {}) };
          tell(moveWords(moved), () => move.mutate(back, { onError: fell() }));
          done?.onSuccess?.();
          if (moved.spinOffs) askAlong(moved.spinOffs);
        },
        onError: fell(done),
      }),
    swap: (id: string, withId: string, done?: Outcome): void => {
      const swap = { id, verb: 'swap', body: { withId } } as const;
      act.mutate(swap, {
        onSuccess: (moved) => {
          tell(`Swapped. ${moveWords(moved)}`, () => act.mutate(swap, { onError: fell() }));
          done?.onSuccess?.();
          if (moved.spinOffs) askAlong(moved.spinOffs);
        },
        onError: fell(done),
      });
    },
    duplicate: (id: string, body: DuplicateBody, done?: Outcome): void =>
      act.mutate(
        { id, verb: 'duplicate', body },
        {
          onSuccess: (made) => {
            tell(`Placed once more. ${moveWords(made)}`, () => act.mutate({ id: made.placement.id, verb: 'cancel' }, { onError: fell() }));
            done?.onSuccess?.();
          },
          onError: fell(done),
        },
      ),
    cancel: (placement: Move['placement'], done?: Outcome): void =>
      act.mutate(
        { id: placement.id, verb: 'cancel' },
        {
          onSuccess: () => {
            tell(`${placement.channelName}: cancelled.`, () => act.mutate({ id: placement.id, verb: 'restore' }, { onError: fell() }));
            done?.onSuccess?.();
          },
          onError: fell(done),
        },
      ),
    restore: (id: string): void => act.mutate({ id, verb: 'restore' }, { onError: fell() }),
  };
}
