import { useQuery } from '@tanstack/react-query';
import type { AlongPieceShape, RoutePageShape, TakeAlongBody, TakenAlongShape } from '@zesting/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { alongQuery } from '../../api/production';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { problemWords } from '../../lib/words';
import { useClients, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed, Loading } from '../../ui/page';
import { ClientCode, DangerTag } from '../../ui/tags';
import { FIELD_WORDS, KEPT_WORDS } from './route-words';

/** The pieces under way that go by an earlier state of a route, and the way to take them along. */
export function UnderWay({ route }: { route: RoutePageShape }) {
  const [isOpen, setOpen] = useState(false);
  if (route.behindPieces === 0 && !isOpen) return null;
  return (
    <section aria-label="Under way" className="card px-4 py-3 flex flex-wrap items-center gap-3">
      <p className="flex-1 min-w-60">
        <strong className="font-semibold">{count(route.behindPieces, 'piece')} under way</strong>{' '}
        <span className="text-muted">
          {route.behindPieces === 1 ? 'goes' : 'go'} by the route as it was before. {route.behindPieces === 1 ? 'It stays' : 'They stay'} so
          until you take {route.behindPieces === 1 ? 'it' : 'them'} along.
        </span>
      </p>
      <Button onClick={() => setOpen(true)}>See what would move</Button>
      {isOpen && <AlongDialog route={route} onClose={() => setOpen(false)} />}
    </section>
  );
}

function AlongDialog({ route, onClose }: { route: RoutePageShape; onClose: () => void }) {
  const along = useQuery(alongQuery(route.id));
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [failed, setFailed] = useState<ReadonlyMap<string, string>>(new Map());
  const [wrong, setWrong] = useState<string>();
  const send = useWrite((body: TakeAlongBody) => call<TakenAlongShape>(`/routes/${route.id}/along`, { method: 'POST', body }), {
    quiet: true,
  });
  const pieces = along.data?.pieces ?? [];
  const chosen = pieces.filter(({ pieceId, isAgainst }) => !isAgainst && !left.has(pieceId));
  // what nothing changes for goes by the route as it is once somebody has looked
  const ids = [...chosen.map(({ pieceId }) => pieceId), ...(along.data?.unmoved ?? [])];
  const take = () => {
    if (!along.data) return;
    setWrong(undefined);
    send.mutate(
      { pieceIds: ids.slice(0, 200), version: along.data.version },
      {
        onSuccess: ({ pieces: taken }) => {
          const problems = new Map(taken.flatMap(({ pieceId, problem }) => (problem === null ? [] : [[pieceId, problem] as const])));
          const moved = chosen.filter(({ pieceId }) => !problems.has(pieceId)).length;
          setFailed(problems);
          if (moved > 0) toast(`${count(moved, 'piece')} taken along.`);
          else if (problems.size === 0) toast('Counted as up to date.');
          if (problems.size === 0) onClose();
          else void along.refetch();
        },
        onError: (problem) => setWrong(wordsOf(problem)),
      },
    );
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Take along: ${route.name}`}
      description="What is begun stays as it is, and so does what was changed by hand. Nothing has moved yet."
    >
      {wrong && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {wrong} Nothing was moved.
        </p>
      )}
      {along.isError && <Failed message={wordsOf(along.error)} onRetry={() => void along.refetch()} />}
      {along.isPending && <Loading />}
      {along.data && pieces.length === 0 && (
        <p>Nothing would move: what the route changed is begun already in all of them, or was left out by hand.</p>
      )}
      <ul>
        {pieces.map((piece) => (
          <AlongLine
            key={piece.pieceId}
            piece={piece}
            isChosen={!left.has(piece.pieceId)}
            problem={failed.get(piece.pieceId)}
            onToggle={() => {
              const next = new Set(left);
              if (!next.delete(piece.pieceId)) next.add(piece.pieceId);
              setLeft(next);
            }}
          />
        ))}
      </ul>
      {(along.data?.morePieces ?? 0) > 0 && (
        <p className="text-muted text-[13px] mt-2">
          {count(along.data?.morePieces ?? 0, 'piece')} more, with later aims: look again once these are done.
        </p>
      )}
      <div className="flex flex-wrap justify-end gap-2 mt-4">
        <Button onClick={onClose}>Leave them as they are</Button>
        {along.data && ids.length > 0 && (
          <Button look="main" disabled={send.isPending || (pieces.length > 0 && chosen.length === 0)} onClick={take}>
            {pieces.length > 0 ? `Take ${count(chosen.length, 'piece')} along` : 'Count them as up to date'}
          </Button>
        )}
      </div>
    </Dialog>
  );
}

interface AlongLineProps {
  readonly piece: AlongPieceShape;
  readonly isChosen: boolean;
  readonly problem: string | undefined;
  readonly onToggle: () => void;
}

/** A piece: what would change of its path, what it would keep, and what becomes of its dates. */
function AlongLine({ piece, isChosen, problem, onToggle }: AlongLineProps) {
  const { clientOf } = useClients();
  const client = clientOf(piece.clientId);
  return (
    <li className="border-t border-line first:border-t-0 py-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <label className="flex items-center gap-2 min-w-0 flex-1 basis-64 min-h-6">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            disabled={piece.isAgainst}
            checked={isChosen && !piece.isAgainst}
            onChange={onToggle}
          />
          <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
          <span className="font-medium min-w-0 break-words">{piece.title}</span>
        </label>
        <Link to={`/pieces/${piece.pieceId}`} className="text-pine text-[13px] hover:underline">
          Open
        </Link>
        <span className="inline-flex items-center gap-1.5">
          <DangerTag danger={piece.dangerBefore} />
          {piece.dangerAfter !== piece.dangerBefore && (
            <>
              <span aria-label="becomes">→</span>
              <DangerTag danger={piece.dangerAfter} />
            </>
          )}
        </span>
      </div>
      <ul className="text-[13px] pl-6 mt-0.5">
        {piece.changes.map((change) => (
          <li key={`${change.kind} ${change.title}`}>{changeWords(change)}</li>
        ))}
        {piece.kept.map(({ title, why }) => (
          <li key={`${why} ${title}`} className="text-muted">
            “{title}” {KEPT_WORDS[why]}
          </li>
        ))}
        {piece.isAgainst && <li className="text-rhubarb">{problemWords('path.circular')}: change its path by hand first</li>}
        {piece.beginByAfter !== piece.beginByBefore && (
          <li
            className={
              piece.beginByAfter !== null && piece.beginByBefore !== null && piece.beginByAfter < piece.beginByBefore
                ? 'text-rind font-medium'
                : ''
            }
          >
            Work must go on by {dayOr(piece.beginByAfter)} at the latest, instead of {dayOr(piece.beginByBefore)}
          </li>
        )}
        {problem && (
          <li role="alert" className="text-rhubarb font-medium">
            Not taken along: {problemWords(problem)}
          </li>
        )}
      </ul>
    </li>
  );
}

const dayOr = (on: string | null): string => (on === null ? 'no day' : dayWords(on));

/** "“Proof” comes in", "“Write”, which Piet Lindqvist has, changes its days". */
function changeWords({ kind, title, fields, doerName }: AlongPieceShape['changes'][number]): string {
  const step = doerName === null ? `“${title}”` : `“${title}”, which ${doerName} has,`;
  if (kind === 'added') return `“${title}” comes in, for nobody yet`;
  if (kind === 'left_out') return `${step} goes`;
  return `${step} changes ${fields.map((field) => FIELD_WORDS[field as keyof typeof FIELD_WORDS]).join(', ')}`;
}
