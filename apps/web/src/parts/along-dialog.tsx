import { useQuery } from '@tanstack/react-query';
import type { AlongShape, AlongsShape, LeftBehindShape } from '@zesting/contract';
import { toast } from 'sonner';
import { alongQuery } from '../api/spin-offs';
import { call, wordsOf } from '../lib/api';
import { count, dayWords } from '../lib/format';
import { askAlong, useLeftBehind } from '../lib/left-behind';
import { useWrite } from '../lib/queries';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { Failed, Loading } from '../ui/page';

/** After a source moved: whether what was made from it moves along or stays. Nothing where nothing is asked. */
export function AlongDialog() {
  const left = useLeftBehind();
  return left && <Asked key={`${left.pieceId} ${left.from} ${left.to}`} left={left} />;
}

const STAYS: Readonly<Record<NonNullable<AlongShape['problem']>, string>> = {
  out: 'is out, and stays',
  sending: 'is on its way, and stays',
  past: 'would lie in the past, and stays',
};

function Asked({ left }: { left: LeftBehindShape }) {
  const { pieceId, from, to } = left;
  const found = useQuery(alongQuery(pieceId, { from, to }));
  const close = () => askAlong(null);
  const move = useWrite(
    (body: { from: string; to: string }) => call<AlongsShape>(`/pieces/${pieceId}/spin-offs/along`, { method: 'POST', body }),
    { quiet: true },
  );
  const go = () =>
    move.mutate(
      { from, to },
      {
        onSuccess: ({ moves }) => {
          const undo = () => move.mutate({ from: to, to: from }, { onError: (error) => toast.error(wordsOf(error)) });
          toast(`${count(moves.length, 'spin-off')} moved along.`, { action: { label: 'Undo', onClick: undo } });
          close();
        },
        onError: (error) => toast.error(wordsOf(error)),
      },
    );
  const moves = found.data?.moves ?? [];
  const able = moves.filter(({ to: on, from: was }) => on !== null && on !== was);
  return (
    <Dialog
      open
      onClose={close}
      title="Do its spin-offs move along?"
      description={`It moved from ${dayWords(from)} to ${dayWords(to)}. What was made from it stands where it stood.`}
    >
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      <ul className="mb-3">
        {moves.map((one) => (
          <li key={one.placementId} className="py-1.5 border-t border-line first:border-t-0">
            <span className="font-medium break-words">{one.title}</span> <span className="text-muted">{one.channelName}</span>
            <span className="block tabular text-[13px]">
              {dayWords(one.from)} {one.to === null ? STAYS[one.problem ?? 'past'] : `→ ${dayWords(one.to)}`}
            </span>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap justify-end gap-2">
        <Button onClick={close}>Let them stay</Button>
        <Button look="main" disabled={able.length === 0 || move.isPending} onClick={go}>
          Move {able.length} along
        </Button>
      </div>
    </Dialog>
  );
}
