import { useQuery } from '@tanstack/react-query';
import type { AllowanceLineShape, RequestShape, TwinShape, VerdictShape } from '@zesting/contract';
import type { VerdictWord } from '@zesting/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { routesQuery } from '../../api/production';
import { verdictQuery } from '../../api/requests';
import { wordsOf } from '../../lib/api';
import { count, dayWords, minutesWords, monthWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { REQUEST_STATE_WORDS, STAGE_WORDS } from '../../lib/words';
import { Button } from '../../ui/button';
import { Failed } from '../../ui/page';
import { Tag, type Tone } from '../../ui/tags';
import { FACT_WORDS } from './forms/words';

const WORDS: Record<VerdictWord, { words: string; tone: Tone; border: string }> = {
  ready: { words: 'Nothing stands against it', tone: 'pine', border: 'border-l-pine' },
  ask: { words: 'Ask first', tone: 'lake', border: 'border-l-lake' },
  look: { words: 'Look first', tone: 'rind', border: 'border-l-rind' },
  later: { words: 'Later, as things stand', tone: 'rind', border: 'border-l-rind' },
  not_by_then: { words: 'Not by that day', tone: 'rhubarb', border: 'border-l-rhubarb' },
};

/** Where no route is known, nothing that goes by one is. */
const UNJUDGED = { words: 'Choose a route', tone: 'calm', border: 'border-l-line-strong' } as const;

interface CardProps {
  readonly request: RequestShape;
  readonly onAsk: (question: string) => void;
  readonly onMerge: (intoId: string) => void;
  readonly onAttach: (pieceId: string) => void;
}

/** The request judged with figures: one line, its reasons below. */
export function VerdictCard({ request, onAsk, onMerge, onAttach }: CardProps) {
  const { data: routes } = useQuery(routesQuery);
  const [routeId, setRouteId] = useState('');
  const verdict = useQuery(verdictQuery(request.id, routeId));
  if (verdict.isError) return <Failed message={wordsOf(verdict.error)} onRetry={() => void verdict.refetch()} />;
  if (!verdict.data) return <p className="card px-4 py-3 mb-4 text-muted min-h-40">Reckoning…</p>;
  const found = verdict.data;
  const isUnjudged = found.routeId === null && found.word === 'ready';
  const { words, tone, border } = isUnjudged ? UNJUDGED : WORDS[found.word];
  return (
    <section aria-label="Verdict" className={`card border-l-4 ${border} px-4 py-3 mb-4`}>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 mb-1">
        <Tag tone={tone}>{words}</Tag>
        <span className="font-medium">{isUnjudged ? 'Then it is judged.' : headline(found)}</span>
        <label className="ml-auto flex items-center gap-1.5 text-[13px] text-muted">
          judged as
          <select className="field w-auto min-h-8" value={found.routeId ?? ''} onChange={(event) => setRouteId(event.target.value)}>
            {found.routeId === null && <option value="">no route</option>}
            {routes?.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      </div>
      <dl className="grid grid-cols-[7.5rem_minmax(0,1fr)] gap-x-3 gap-y-1 text-[13px]">
        <dt className="text-muted">Missing</dt>
        <dd>
          {found.routeId === null ? (
            'no route, so not known'
          ) : found.missing.length === 0 ? (
            'nothing that the brief needs'
          ) : (
            <>
              {found.missing.map((fact) => FACT_WORDS[fact]).join(', ')}
              {request.requesterEmail !== null && (
                <Button look="quiet" onClick={() => onAsk(found.question)}>
                  Ask for it…
                </Button>
              )}
            </>
          )}
        </dd>
        <dt className="text-muted">Day</dt>
        <dd>
          <DayReasons verdict={found} />
        </dd>
        <dt className="text-muted">Hours</dt>
        <dd>
          {found.skills.length === 0
            ? 'no route, so none reckoned'
            : found.skills.map(({ skill, minutes, freeMinutes, people }) => (
                <span
                  key={skill}
                  className={`mr-3 whitespace-nowrap ${freeMinutes !== null && freeMinutes < minutes ? 'text-rind font-medium' : ''}`}
                >
                  {skill} {minutesWords(minutes)}
                  {people === 0 ? ', nobody can' : freeMinutes === null ? '' : ` of ${Math.round(freeMinutes / 60)} h free`}
                </span>
              ))}
        </dd>
        {found.doers.length > 0 && (
          <>
            <dt className="text-muted">Free first</dt>
            <dd>
              {found.doers.map(({ title, name, startOn, finishOn }) => (
                <span key={title} className="mr-3 whitespace-nowrap">
                  {title} {name.split(' ')[0]},{' '}
                  {startOn === finishOn ? dayWords(finishOn) : `${dayWords(startOn)} to ${dayWords(finishOn)}`}
                </span>
              ))}
            </dd>
          </>
        )}
        {found.allowance.lines.length > 0 && (
          <>
            <dt className="text-muted">{monthWords(found.allowance.month)}</dt>
            <dd>
              {found.allowance.lines.map((line) => (
                <AllowanceLine key={line.formatName ?? ''} line={line} />
              ))}
            </dd>
          </>
        )}
        <dt className="text-muted">Notice</dt>
        <dd className={found.keepsNotice ? '' : 'text-rind font-medium'}>
          {found.keepsNotice ? 'kept' : `short: from ${dayWords(found.noticeOn)} on it would be kept`}
          {found.isLaunch && ', as for a launch'}
        </dd>
        {found.clashes.length > 0 && (
          <>
            <dt className="text-muted">On that day</dt>
            <dd>
              {found.clashes.map(({ name, pieceId }) => (
                <span key={name} className="block">
                  {pieceId ? <PieceLink id={pieceId} title={name} /> : name}
                </span>
              ))}
            </dd>
          </>
        )}
        {found.twins.length > 0 && (
          <>
            <dt className="text-muted">Alike</dt>
            <dd>
              <ul>
                {found.twins.map((twin) => (
                  <Twin key={twin.id} twin={twin} onMerge={onMerge} onAttach={onAttach} />
                ))}
              </ul>
            </dd>
          </>
        )}
      </dl>
    </section>
  );
}

/** The one thing to know, in words. */
function headline({ word, missing, earliestOn, predictedOn, twins, clashes, wishOn }: VerdictShape): string {
  if (word === 'not_by_then') return `The earliest day is ${earliestOn ? dayWords(earliestOn) : 'not known'}.`;
  if (word === 'later') return `After what is taken on already, ${predictedOn ? dayWords(predictedOn) : 'no day'} is predicted.`;
  if (word === 'ask') return `${count(missing.length, 'thing')} the brief needs ${missing.length === 1 ? 'is' : 'are'} not told.`;
  if (word === 'look')
    return [
      twins.length > 0 ? (twins.length === 1 ? 'something alike is there' : `${twins.length} things alike are there`) : '',
      clashes.length > 0 ? 'that day is taken' : '',
    ]
      .filter(Boolean)
      .join(', ')
      .replace(/^./, (sign) => sign.toUpperCase())
      .concat('.');
  return wishOn ? `It can be out on ${dayWords(wishOn)}.` : 'No day is asked for.';
}

function DayReasons({ verdict }: { verdict: VerdictShape }) {
  const { wishOn, earliestOn, predictedOn, slackDays, helps, beginBy } = verdict;
  if (earliestOn === null || predictedOn === null) return 'no route, so none reckoned';
  const earliest =
    predictedOn === earliestOn
      ? `earliest ${dayWords(earliestOn)}`
      : `earliest ${dayWords(earliestOn)}, after what is taken on ${dayWords(predictedOn)}`;
  if (wishOn === null || slackDays === null) return `${earliest}, none asked for`;
  return (
    <>
      wished for {dayWords(wishOn)}, {earliest}:{' '}
      <span className={slackDays < 0 ? 'text-rhubarb font-medium' : ''}>
        {slackDays < 0 ? `${count(-slackDays, 'day')} too soon` : slackDays === 0 ? 'to the day' : `${count(slackDays, 'day')} to spare`}
      </span>
      {slackDays >= 0 && beginBy !== null && `; begun by ${dayWords(beginBy)} at the latest`}
      {helps.map(({ stepKey, title, spanDays, predictedOn: then }) => (
        <span key={`${stepKey} ${spanDays}`} className="block">
          {spanDays === null ? `Without ${title}` : `${title} in ${count(spanDays, 'day')}`}: {dayWords(then)}
        </span>
      ))}
    </>
  );
}

/** What is left of a month, and what this would leave. */
function AllowanceLine({ line: { formatName, included, used, leftThen } }: { line: AllowanceLineShape }) {
  const unit = formatName === null ? ' h' : '';
  const isOver = leftThen !== null && leftThen < 0;
  return (
    <span className={`mr-3 whitespace-nowrap ${isOver ? 'text-rind font-medium' : ''}`}>
      {formatName ?? 'Hours'}: {used} of {included}
      {unit} used
      {leftThen !== null && (isOver ? `, ${-leftThen}${unit} over with this` : `, ${leftThen}${unit} left with this`)}
    </span>
  );
}

function PieceLink({ id, title }: { id: string; title: string }) {
  const { to } = useClients();
  return (
    <Link to={to(`/pieces/${id}`)} className="text-pine underline">
      {title}
    </Link>
  );
}

/** Something alike, with what can be done about it. */
function Twin({ twin, onMerge, onAttach }: { twin: TwinShape; onMerge: (id: string) => void; onAttach: (id: string) => void }) {
  const { to } = useClients();
  const isPiece = twin.kind === 'piece';
  const standing = isPiece
    ? STAGE_WORDS[twin.state as keyof typeof STAGE_WORDS]
    : REQUEST_STATE_WORDS[twin.state as keyof typeof REQUEST_STATE_WORDS];
  return (
    <li className="flex flex-wrap items-center gap-x-2 min-h-8">
      <Link
        to={to(isPiece ? `/pieces/${twin.id}` : `/requests/${twin.id}`)}
        className="text-pine underline truncate max-w-72 leading-[24px]"
        title={twin.title}
      >
        {twin.title}
      </Link>
      <span className="text-muted">
        {twin.formatName ?? 'request'}, {standing?.toLowerCase()}, {dayWords(twin.on)} · {Math.round(twin.likeness * 100)} %
        {twin.isInText && ' in its text'}
        {twin.sharedWords.length > 0 && `: ${twin.sharedWords.join(', ')}`}
      </span>
      {isPiece && twin.state !== 'shelved' && (
        <Button look="quiet" onClick={() => onAttach(twin.id)} aria-label={`Put it to this: “${twin.title}”`}>
          Put it to this
        </Button>
      )}
      {!isPiece && (twin.state === 'new' || twin.state === 'asked_back') && (
        <Button look="quiet" onClick={() => onMerge(twin.id)} aria-label={`Merge with it: “${twin.title}”`}>
          Merge with it
        </Button>
      )}
    </li>
  );
}
