import { useQuery } from '@tanstack/react-query';
import type { AwayBody, AwayGiveShape, AwayPieceShape, AwayShape, TimeOffBody } from '@zesting/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { awayQuery } from '../../api/people';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed, Loading } from '../../ui/page';
import { ClientCode, Tag } from '../../ui/tags';

interface AwayDialogProps {
  readonly personId: string;
  readonly name: string;
  readonly off: TimeOffBody;
  /** once it is entered */
  readonly onDone: () => void;
  readonly onClose: () => void;
}

/** What an absence would make late, who could take over, and both entered with one press. */
export function AwayDialog({ personId, name, off, onDone, onClose }: AwayDialogProps) {
  const away = useQuery(awayQuery(personId, off));
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [wrong, setWrong] = useState<string>();
  const enter = useWrite((body: AwayBody) => call(`/people/${personId}/away`, { method: 'POST', body }), { quiet: true });
  const gives = away.data?.gives.filter(({ stepId }) => !left.has(stepId)) ?? [];
  const accept = () =>
    enter.mutate(
      { ...off, gives: gives.map(({ stepId, personId: to, version }) => ({ stepId, personId: to, version })) },
      {
        onSuccess: () => {
          toast(`${name} is away. ${gives.length > 0 ? `${count(gives.length, 'step')} given to others.` : 'Nobody takes over.'}`);
          onDone();
        },
        onError: (problem) => {
          setWrong(wordsOf(problem));
          void away.refetch();
        },
      },
    );
  const days = off.endOn === off.startOn ? dayWords(off.startOn) : `${dayWords(off.startOn)} to ${dayWords(off.endOn)}`;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`${name} away, ${days}`}
      description="What it would make late, by all that everybody has to do, and who could take over. Nothing is entered yet."
    >
      {wrong && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {wrong} Nothing was entered; here is how it stands now.
        </p>
      )}
      {away.isError && <Failed message={wordsOf(away.error)} onRetry={() => void away.refetch()} />}
      {away.isPending && <Loading />}
      {away.data && (
        <>
          <Late away={away.data} isWhole={left.size === 0} />
          <Gives
            gives={away.data.gives}
            left={left}
            onToggle={(stepId) => setLeft(new Set(left.has(stepId) ? [...left].filter((id) => id !== stepId) : [...left, stepId]))}
          />
          <Around around={away.data.around} />
          {!away.data.isWhole && <p className="text-muted text-[13px] mt-2">Time was up before everything was looked at.</p>}
          <div className="flex flex-wrap justify-end gap-2 mt-4">
            <Button onClick={onClose}>Not yet</Button>
            <Button look="main" disabled={enter.isPending || away.isFetching} onClick={accept}>
              {gives.length > 0 ? `Enter it and give ${count(gives.length, 'step')}` : 'Enter it'}
            </Button>
          </div>
        </>
      )}
    </Dialog>
  );
}

/** Pieces that become later, with what is left of that once the steps are given. */
function Late({ away, isWhole }: { away: AwayShape; isWhole: boolean }) {
  const { clientOf } = useClients();
  if (away.pieces.length === 0) return <p className="mb-3">Nothing becomes late by it.</p>;
  return (
    <section aria-labelledby="becomes-late" className="mb-4">
      <h3 id="becomes-late" className="text-base mb-1">
        {count(away.pieces.length, 'piece')} would be later
      </h3>
      <ul>
        {away.pieces.map((piece) => {
          const client = clientOf(piece.clientId);
          return (
            <li key={piece.pieceId} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5 border-t border-line first:border-t-0">
              <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
              <span className="font-medium flex-1 min-w-40 break-words">{piece.title}</span>
              <span className="text-[13px]">{lateWords(piece)}</span>
              {isWhole && <AfterTag piece={piece} />}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** What goes out or went out meanwhile, and what they have to do around it. */
function Around({ around }: Pick<AwayShape, 'around'>) {
  const { clientOf } = useClients();
  if (around.length === 0) return null;
  return (
    <section aria-labelledby="around-away" className="mt-4">
      <h3 id="around-away" className="text-base mb-1">
        To do around what goes out
      </h3>
      <ul>
        {around.map((work, index) => {
          const client = clientOf(work.clientId);
          return (
            <li key={index} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5 border-t border-line first:border-t-0">
              <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
              <span className="flex-1 min-w-40 break-words">
                <span className="font-medium">{work.words}</span>: {work.pieceTitle}, {work.channelName}
              </span>
              {work.thenOn < work.dueOn ? (
                <span className="text-[13px]">
                  {dayWords(work.dueOn)} now, {dayWords(work.thenOn)} then
                </span>
              ) : (
                <Tag tone="rind">due {dayWords(work.dueOn)}, while away</Tag>
              )}
            </li>
          );
        })}
      </ul>
      <p className="text-muted text-[13px] mt-1">
        Who does what around a channel is said on its client’s page. What is due while they are away stands with its account manager under{' '}
        <Link to="/calendar/going-out" className="text-pine underline">
          Going out
        </Link>
        .
      </p>
    </section>
  );
}

const daysWords = (days: number): string => (days === 0 ? 'in time' : days > 3000 ? 'never' : `${count(days, 'working day')} late`);
const lateWords = ({ was, away }: AwayPieceShape): string => `${daysWords(was)} now, ${daysWords(away)} then`;

function AfterTag({ piece }: { piece: AwayPieceShape }) {
  if (piece.after <= piece.was)
    return <Tag tone="pine">{piece.after === 0 ? 'in time with what is proposed' : 'as now with what is proposed'}</Tag>;
  return <Tag tone="rhubarb">{daysWords(piece.after)} all the same</Tag>;
}

interface GivesProps {
  readonly gives: readonly AwayGiveShape[];
  readonly left: ReadonlySet<string>;
  readonly onToggle: (stepId: string) => void;
}

/** Who could take over: whole, or in part. */
function Gives({ gives, left, onToggle }: GivesProps) {
  if (gives.length === 0) return <p className="text-muted">Nobody could take over so that it helps, or nothing needs it.</p>;
  return (
    <fieldset>
      <legend className="font-display font-semibold text-base mb-1">Proposed</legend>
      {gives.map((give) => (
        <label key={give.stepId} className="flex items-start gap-2 py-1.5 border-t border-line first-of-type:border-t-0">
          <input
            type="checkbox"
            className="size-4 mt-0.5 accent-pine"
            checked={!left.has(give.stepId)}
            onChange={() => onToggle(give.stepId)}
          />
          <span>
            {give.stepTitle} of “{give.pieceTitle}” goes to <strong>{give.personName}</strong>
          </span>
        </label>
      ))}
      {left.size > 0 && <p className="text-muted text-[13px] mt-1">What is left out stays with them, and may be late.</p>}
    </fieldset>
  );
}
