import type { MovedShape, PlacementShape } from '@zesting/contract';
import { toast } from 'sonner';
import { ApiProblem, call, wordsOf } from './api';
import { dayWords } from './format';
import { useWrite } from './queries';

export interface Move {
  readonly placement: Pick<PlacementShape, 'id' | 'version' | 'on' | 'at' | 'channelName'>;
  readonly on: string | null;
  readonly at?: string | null;
}

/** What a move did, in words: never about siblings, which stay; about what becomes late. */
export function moveWords({ placement, lateSteps, earliestPublishOn }: MovedShape): string {
  const where = placement.on ? `${dayWords(placement.on)}, ${placement.at ?? ''}` : 'no date';
  const late =
    lateSteps.length > 0
      ? ` Late now: ${lateSteps.join(', ')}.${earliestPublishOn ? ` ${dayWords(earliestPublishOn)} can be met.` : ''}`
      : '';
  return `${placement.channelName}: ${where}. ${placement.state === 'pencilled' ? 'Pencilled until it is signed.' : ''}${late}`;
}

/** Moves a placement; tells what it did, and offers to undo it. */
export function useMove() {
  const move = useWrite(
    ({ placement, on, at }: Move) =>
      call<MovedShape>(`/placements/${placement.id}/date`, { method: 'PUT', body: { on, at: at ?? null }, version: placement.version }),
    { quiet: true },
  );
  const go = (wanted: Move, done?: { onSuccess?: () => void; onError?: (words: string) => void }): void =>
    move.mutate(wanted, {
      onSuccess: (moved) => {
        const undo = () => move.mutate({ placement: moved.placement, on: wanted.placement.on, at: wanted.placement.at });
        toast(moveWords(moved), { duration: 8000, action: { label: 'Undo', onClick: undo } });
        done?.onSuccess?.();
      },
      onError: (error) => {
        const words =
          error instanceof ApiProblem && error.code === 'http.changed_meanwhile'
            ? 'Somebody else moved this meanwhile. Look again, then move it.'
            : wordsOf(error);
        if (done?.onError) done.onError(words);
        else toast.error(words);
      },
    });
  return { go, isPending: move.isPending };
}
