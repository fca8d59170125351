import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { OtherPieceShape, PathChangeBody, PathPreviewShape, StepMoveShape } from '@zesting/contract';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { pathPreviewQuery } from '../../api/production';
import { wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { DangerTag, Tag } from '../../ui/tags';

/** What is typed is not asked about at every key. */
const REST_MS = 300;

/** A value once it has rested. */
function useRested<T>(value: T): T {
  const [rested, setRested] = useState(value);
  const text = JSON.stringify(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(JSON.parse(text) as T), REST_MS); // the same value
    return () => clearTimeout(timer);
  }, [text]);
  return rested;
}

/** What changes of a path would come to, before they are made. @param changes none: they are not whole yet */
export function PathMoves({ pieceId, changes }: { pieceId: string; changes: readonly PathChangeBody[] }) {
  const rested = useRested(changes);
  const preview = useQuery({ ...pathPreviewQuery(pieceId, rested), enabled: rested.length > 0, placeholderData: keepPreviousData });
  return (
    <section aria-label="What moves" aria-busy={preview.isFetching} className="min-h-40">
      <h3 className="text-base mb-1">What moves</h3>
      {rested.length === 0 ? (
        <p className="text-muted">Nothing yet: say what is to change.</p>
      ) : preview.isError ? (
        <p className="text-rhubarb font-medium">{wordsOf(preview.error)}</p>
      ) : preview.data ? (
        <Moves preview={preview.data} />
      ) : (
        <p className="text-muted">Working it out…</p>
      )}
    </section>
  );
}

function Moves({ preview }: { preview: PathPreviewShape }) {
  const { steps, dangerBefore, dangerAfter, lateDaysBefore, lateDaysAfter } = preview;
  return (
    <>
      <p className="mb-2 flex flex-wrap items-center gap-1.5">
        The piece:
        {dangerBefore !== dangerAfter && (
          <>
            <DangerTag danger={dangerBefore} /> <span aria-label="becomes">→</span>
          </>
        )}
        {dangerAfter ? <DangerTag danger={dangerAfter} /> : <span className="text-muted">no date to make</span>}
        {lateDaysAfter > 0 && (
          <span className={lateDaysAfter > lateDaysBefore ? 'text-rhubarb font-medium' : ''}>
            {count(lateDaysAfter, 'working day')} late
          </span>
        )}
      </p>
      {steps.length === 0 ? (
        <p className="text-muted mb-2">No date moves.</p>
      ) : (
        <table className="w-full text-[13px] mb-2">
          <thead>
            <tr className="text-left text-muted">
              <th scope="col" className="font-medium py-1 pr-2">
                Step
              </th>
              <th scope="col" className="font-medium py-1 pr-2">
                Start by
              </th>
              <th scope="col" className="font-medium py-1 pr-2">
                Finish by
              </th>
              <th scope="col" className="font-medium py-1">
                Predicted
              </th>
            </tr>
          </thead>
          <tbody>
            {steps.map((step) => (
              <MoveRow key={step.stepId} step={step} />
            ))}
          </tbody>
        </table>
      )}
      <Others others={preview.others} hidden={preview.othersHidden} />
    </>
  );
}

function MoveRow({ step: { title, before, after } }: { step: StepMoveShape }) {
  return (
    <tr className="border-t border-line align-top">
      <th scope="row" className={`font-medium text-left py-1 pr-2 ${after ? '' : 'line-through'}`}>
        {title} {!before && <Tag tone="lake">new</Tag>}
        {!after && <span className="sr-only"> goes</span>}
      </th>
      <td className="py-1 pr-2 tabular">{after && <Then was={before?.latestStartOn ?? null} now={after.latestStartOn} />}</td>
      <td className="py-1 pr-2 tabular">{after ? <Then was={before?.latestFinishOn ?? null} now={after.latestFinishOn} /> : 'goes'}</td>
      <td className="py-1 tabular">
        {after && (
          <span className={after.danger === 'will_be_late' ? 'text-rhubarb font-medium' : ''}>
            <Then was={before?.predictedFinishOn ?? null} now={after.predictedFinishOn} />
          </span>
        )}
      </td>
    </tr>
  );
}

/** A day as it was and as it would be; one day where nothing differs. */
function Then({ was, now }: { was: string | null; now: string | null }) {
  if (now === null) return <span className="text-muted">no day</span>;
  if (was === null || was === now) return <>{dayWords(now)}</>;
  return (
    <>
      <span className="text-muted">{dayWords(was)}</span> <span aria-label="becomes">→</span>{' '}
      <strong className="whitespace-nowrap">{dayWords(now)}</strong>
    </>
  );
}

/** What becomes of other pieces. */
export function Others({ others, hidden }: { others: readonly OtherPieceShape[]; hidden: number }) {
  const { to } = useClients();
  if (others.length === 0 && hidden === 0) return <p className="text-muted text-[13px]">No other piece becomes late by it.</p>;
  return (
    <ul className="text-[13px]" aria-label="What it does to other pieces">
      {others.map(({ pieceId, title, wasDays, nowDays }) => (
        <li key={pieceId} className={nowDays > wasDays ? 'text-rhubarb' : ''}>
          <Link to={to(`/pieces/${pieceId}`)} className="underline decoration-dotted underline-offset-4">
            {title}
          </Link>
          : {otherWords(wasDays, nowDays)}
        </li>
      ))}
      {hidden > 0 && <li className="text-rhubarb">{count(hidden, 'piece')} of clients that you do not look after would be later.</li>}
    </ul>
  );
}

/** What becomes of another piece, by the working days that it is late. */
function otherWords(was: number, now: number): string {
  if (now === 0) return 'would make its date again';
  const days = count(now, 'working day');
  if (was === 0) return `would be late by ${days}`;
  return `would be late by ${days} instead of ${was}`;
}
