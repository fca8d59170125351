import { useQuery } from '@tanstack/react-query';
import type { MendChangeShape, MendShape, MendsShape, PathChangeBody, PieceShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { mendsQuery } from '../../api/production';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed, Loading } from '../../ui/page';
import { Tag } from '../../ui/tags';
import { Others } from './path-moves';

/** The smallest changes that would bring a late piece back. Each is made with one press; nothing is made unasked. */
export function MendsDialog({ piece, onClose }: { piece: PieceShape; onClose: () => void }) {
  const mends = useQuery(mendsQuery(piece.id));
  const [wrong, setWrong] = useState<string>();
  const make = useWrite((changes: readonly PathChangeBody[]) => call(`/pieces/${piece.id}/path`, { method: 'POST', body: { changes } }), {
    quiet: true,
  });
  const take = ({ changes }: MendShape) =>
    make.mutate(changes.flatMap(bodyOf), {
      onSuccess: () => {
        toast('Done: the path and everybody’s work are planned anew.');
        onClose();
      },
      onError: (problem) => {
        setWrong(wordsOf(problem));
        void mends.refetch();
      },
    });
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="What would help"
      description="Each was tried on everybody’s work as it is predicted. What changes least and harms nobody comes first."
    >
      {wrong && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {wrong}
        </p>
      )}
      {mends.isError && <Failed message={wordsOf(mends.error)} onRetry={() => void mends.refetch()} />}
      {mends.isPending && <Loading />}
      {mends.data && (
        <>
          <Found mends={mends.data} busy={make.isPending || mends.isFetching} onTake={take} />
          <LaterDay piece={piece} laterOn={mends.data.laterOn} lateDays={mends.data.lateDays} onDone={onClose} />
          <p className="text-muted text-[12.5px] mt-2">
            {mends.data.tried < mends.data.possible
              ? `Time was up: ${mends.data.tried} of ${mends.data.possible} changes were tried.`
              : mends.data.tried > 0 && `${count(mends.data.tried, 'change')} tried.`}
          </p>
        </>
      )}
    </Dialog>
  );
}

function Found({
  mends: { helps, lateDays, isPlanned },
  busy,
  onTake,
}: {
  mends: MendsShape;
  busy: boolean;
  onTake: (mend: MendShape) => void;
}) {
  if (!isPlanned) return <p>Somebody on its path never works. Give their step to somebody else first.</p>;
  if (lateDays === 0) return <p>The piece makes its date as things are.</p>;
  if (helps.length === 0) return <p className="mb-2">No small change of order, doers, spans or steps brings it nearer its date.</p>;
  return (
    <ul>
      {helps.map((mend, index) => (
        <li key={index} className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 items-start py-3 border-t border-line first:border-t-0">
          <div>
            {mend.changes.map((change) => (
              <p key={`${change.kind} ${change.stepId}`} className="font-medium">
                {changeWords(change)}
              </p>
            ))}
            <p className="my-0.5">
              {mend.lateDays === 0 ? (
                <Tag tone="pine">makes its date</Tag>
              ) : (
                <Tag tone="rind">
                  still {count(mend.lateDays, 'working day')} late, not {lateDays}
                </Tag>
              )}
            </p>
            <Others others={mend.others} hidden={mend.othersHidden} />
          </div>
          {mend.changes.some(({ kind }) => kind === 'free') ? (
            <span className="text-muted text-[13px]">Settle it on the piece once it is gone</span>
          ) : (
            <Button look={index === 0 && mend.lateDays === 0 ? 'main' : 'plain'} disabled={busy} onClick={() => onTake(mend)}>
              Do it
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** As it is sent; what stands in the way is not taken away by a press. */
const bodyOf = ({ kind, stepId, version, spanDays, effortMinutes, finishOn, personId }: MendChangeShape): PathChangeBody[] =>
  kind === 'free'
    ? []
    : [
        {
          kind,
          stepId,
          version,
          ...(kind === 'retime' ? { spanDays: spanDays ?? 1, effortMinutes: effortMinutes ?? 0 } : {}),
          ...(kind === 'pin' ? { finishOn } : {}),
          ...(kind === 'give' ? { personId } : {}),
        },
      ];

/** A change in words, with what speaks for it. */
export function changeWords({ kind, stepTitle, finishOn, personName, wasDays, spanDays, kept, keptOf }: MendChangeShape): string {
  if (kind === 'pin' && finishOn === null) return `Take away the pin of “${stepTitle}”`;
  if (kind === 'pin') return `Do “${stepTitle}” first: finish it on ${dayWords(finishOn ?? '')}, before what is due earlier`;
  if (kind === 'give') return `Give “${stepTitle}” to ${personName ?? 'somebody else'}`;
  if (kind === 'free') return `If nothing stood in the way of “${stepTitle}” any more`;
  if (kind === 'leave_out') return `Leave “${stepTitle}” out`;
  const history = kept === null ? '' : `: ${kept} of the last ${keptOf} took no longer`;
  return `Plan “${stepTitle}” in ${count(spanDays ?? 1, 'day')}, not ${wasDays}${history}`;
}

/** The way that is always open: a later day. What has a day on the calendar is moved there. */
function LaterDay({
  piece,
  laterOn,
  lateDays,
  onDone,
}: {
  piece: PieceShape;
  laterOn: string | null;
  lateDays: number;
  onDone: () => void;
}) {
  const edit = useWrite((wishOn: string) => call(`/pieces/${piece.id}`, { method: 'PATCH', body: { wishOn }, version: piece.version }));
  if (lateDays === 0) return null;
  if (laterOn === null)
    return <p className="border-t border-line pt-3">As things are, a step of it never ends: nobody who has it works.</p>;
  const isDated = piece.placements.some(({ on, state }) => on !== null && state !== 'cancelled' && state !== 'out');
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 items-start py-3 border-t border-line">
      <p>
        <span className="font-medium">Publish it on {dayWords(laterOn)} or later</span>
        <span className="block text-muted text-[13px]">
          Nothing else changes.{' '}
          {isDated ? 'Its placements are moved on the calendar, or in “Placements” of this page.' : 'The wish date moves.'}
        </span>
      </p>
      {!isDated && (
        <Button disabled={edit.isPending} onClick={() => edit.mutate(laterOn, { onSuccess: onDone })}>
          Take that day
        </Button>
      )}
    </div>
  );
}
