import { useQuery } from '@tanstack/react-query';
import type { SittingShape, SittingStep } from '@zesting/contract';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { pieceQuery, sittingQuery } from '../../../api/production';
import { wordsOf } from '../../../lib/api';
import { count, dayWords, minutesWords } from '../../../lib/format';
import { useClients, useSession } from '../../../lib/queries';
import { useSearch } from '../../../lib/use-search';
import { Button, buttonClass } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../../ui/page';
import { ClientCode, DangerTag } from '../../../ui/tags';
import { Thumbnail } from '../../../ui/thumbnail';
import { BriefSection } from '../brief-section';
import { ContentSection } from '../content-section';
import { usePieceFilter } from '../piece-filter';
import { RemarksSection } from '../remarks/remarks-section';
import { afterGone } from './after-gone';
import { ReadMark } from './read-mark';

const WAYS = [
  ['make', 'Make'],
  ['read', 'Read'],
] as const;

/** Steps of one kind, one after another: made or read from, handed in, and the next comes by itself. */
export function SittingPage() {
  const { search, put } = useSearch();
  const { query } = useClients();
  const filter = usePieceFilter();
  const skill = search.get('skill') ?? '';
  const way = search.get('way') === 'read' ? 'read' : 'make';
  const sitting = useQuery(sittingQuery(query, filter.query, skill));
  if (sitting.isError) return <Failed message={wordsOf(sitting.error)} onRetry={() => void sitting.refetch()} />;
  if (!sitting.data) return <Loading />;
  const { steps } = sitting.data;
  const now = steps.filter(({ atHand }) => atHand).length;
  const back = new URLSearchParams(search);
  for (const name of ['skill', 'step', 'way']) back.delete(name);
  return (
    <>
      <PageHead title={`To make: ${skill}`} note={`${count(steps.length, 'step')}, ${now} now`}>
        <Choice
          label="How"
          value={way}
          options={WAYS}
          onChange={(next) => put({ way: next === 'read' ? 'read' : null }, { replace: true })}
        />
        <Link to={`/production/make?${back}`} className={buttonClass()}>
          All there is to make
        </Link>
      </PageHead>
      {steps.length === 0 ? (
        <Empty title="All of it is done">Nothing of this kind is left to make.</Empty>
      ) : way === 'read' ? (
        <Reading steps={steps} />
      ) : (
        <Making sitting={sitting.data} />
      )}
    </>
  );
}

/** The one that is made now beside the list of all; when it is handed in, the next of the list takes its place. */
function Making({ sitting: { steps, isWhole } }: { sitting: SittingShape }) {
  const { search, put } = useSearch();
  const asked = search.get('step');
  // the list as it was before it changed: where what is gone stood
  const [seen, setSeen] = useState({ steps, before: steps });
  if (seen.steps !== steps) setSeen({ steps, before: seen.steps });
  const current = steps.find(({ stepId }) => stepId === asked) ?? afterGone(seen.before, steps, asked) ?? steps[0];
  useEffect(() => {
    if (current && current.stepId !== asked) put({ step: current.stepId }, { replace: true });
  });
  const at = current ? steps.indexOf(current) : -1;
  const next = steps[at + 1];
  return (
    <div className="grid gap-4 items-start lg:grid-cols-[minmax(0,260px)_minmax(0,1fr)]">
      <nav aria-label="One after another" className="card p-2 lg:sticky lg:top-2 lg:max-h-[calc(100vh-1rem)] lg:overflow-y-auto">
        <ol>
          {steps.map((step) => (
            <li key={step.stepId}>
              <button
                type="button"
                aria-current={step === current ? 'step' : undefined}
                onClick={() => put({ step: step.stepId }, { replace: true })}
                className={`w-full text-left px-2 py-1.5 rounded-md flex gap-2 items-start ${step === current ? 'bg-pine-soft' : 'hover:bg-sunk'} ${step.atHand ? '' : 'text-muted'}`}
              >
                <Thumbnail pictureId={step.pictureId} size={32} />
                <StepWords step={step} />
              </button>
            </li>
          ))}
        </ol>
        {!isWhole && <p className="text-muted text-[13px] px-2">The first {steps.length}; the rest comes as these are done.</p>}
      </nav>
      {current && (
        <div className="min-w-0">
          <Current key={current.stepId} step={current} />
          {next && (
            <p className="mt-3 text-right">
              <Button onClick={() => put({ step: next.stepId }, { replace: true })}>Next, this one later: {next.pieceTitle}</Button>
            </p>
          )}
        </div>
      )}
    </div>
  );
}

function StepWords({ step }: { step: SittingStep }) {
  const { clientOf } = useClients();
  const client = clientOf(step.clientId);
  const { personId } = useSession();
  return (
    <span className="min-w-0 flex-1 text-[13px]">
      <span className="flex items-center gap-1.5">
        {client && <ClientCode code={client.code} colour={client.colour} />}
        <span className="text-muted tabular">{step.latestFinishOn ? dayWords(step.latestFinishOn) : 'no date'}</span>
      </span>
      <span className="block font-medium break-words">{step.pieceTitle}</span>
      <span className="block text-muted">
        {step.stepTitle}
        {step.doerId !== personId && (step.doerName ? ` · ${step.doerName}` : ' · nobody yet')} · {minutesWords(step.leftMinutes)}
        {!step.atHand && ' · waits for others'}
      </span>
    </span>
  );
}

/** What is needed to do one step: the piece's brief beside its content, and what was said about it. */
function Current({ step }: { step: SittingStep }) {
  const { data: piece, isError, error, refetch } = useQuery(pieceQuery(step.pieceId));
  if (isError) return <Failed message={wordsOf(error)} onRetry={() => void refetch()} />;
  if (!piece) return <Loading />;
  return (
    <section aria-label={step.pieceTitle}>
      <h2 className="text-xl flex flex-wrap items-center gap-2 mb-2">
        <Link to={`/pieces/${piece.id}`} className="no-underline hover:underline break-words">
          {piece.title}
        </Link>
        <span className="text-muted text-[13px] font-sans font-normal tracking-normal">{piece.formatName}</span>
        <DangerTag danger={step.danger === 'fine' ? null : step.danger} />
      </h2>
      <div className="grid gap-4 items-start xl:grid-cols-[minmax(0,1fr)_minmax(0,300px)]">
        <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
          <ContentSection key={piece.id} piece={piece} />
          <RemarksSection piece={piece} />
        </div>
        <BriefSection piece={piece} />
      </div>
    </section>
  );
}

/** What is written of all of them, large and one below another: to be read from while recording. */
function Reading({ steps }: { steps: readonly SittingStep[] }) {
  const { clientOf } = useClients();
  return (
    <ol className="grid gap-4 max-w-4xl">
      {steps.map((step, index) => (
        <li key={step.stepId} className="card p-5">
          <p className="flex flex-wrap items-center gap-2 text-muted text-[13px]">
            <span className="tabular">
              {index + 1} of {steps.length}
            </span>
            <ClientCode code={clientOf(step.clientId)?.code ?? ''} colour={clientOf(step.clientId)?.colour ?? 0} />
            <Link to={`/pieces/${step.pieceId}`}>{step.pieceTitle}</Link>
            <span>{step.formatName}</span>
          </p>
          {step.copy.trim() === '' ? (
            <p className="text-muted mt-2">Nothing is written yet.</p>
          ) : (
            <p className="text-2xl leading-relaxed whitespace-pre-wrap break-words mt-2">{step.copy}</p>
          )}
          <ReadMark step={step} />
        </li>
      ))}
    </ol>
  );
}
