import { useSuspenseQuery } from '@tanstack/react-query';
import type { MyStepRow, StepWithRow } from '@zesting/contract';
import { Link } from 'react-router';
import { myStepsQuery } from '../../api/people';
import { count, dayWords, minutesWords } from '../../lib/format';
import { OpenObstacles } from '../../parts/open-obstacles';
import { OwnAround } from '../../parts/own-around';
import { OwnDuties } from '../../parts/own-duties';
import { buttonClass } from '../../ui/button';
import { Empty, PageHead } from '../../ui/page';
import { ClientCode, DangerTag, Tag } from '../../ui/tags';
import { Wheel } from '../../ui/wheel';
import { Clock } from './hours/clock';
import { Offer } from './offer';
import { RemainingField } from './remaining-field';

/** A creator's own steps, in the order to do them: what can be done now, then what waits for others. */
export function MyStepsPage() {
  const { data } = useSuspenseQuery(myStepsQuery);
  const now = data.rows.filter((row) => row.atHand);
  const later = data.rows.filter((row) => !row.atHand);
  const minutes = now.reduce((sum, row) => sum + row.leftMinutes, 0);
  return (
    <div className="max-w-4xl mx-auto">
      <PageHead
        title="Your steps"
        note={`${dayWords(data.todayOn)}. ${now.length > 0 ? `${count(now.length, 'step')} to do, ${minutesWords(minutes)} of work.` : ''}`}
      >
        {data.rows.length > 1 && (
          <Link to="/production/make" className={buttonClass()}>
            One after another
          </Link>
        )}
      </PageHead>
      <OpenObstacles />
      <OwnDuties />
      <OwnAround />
      {data.rows.length === 0 && data.together.length === 0 && (
        <Empty title="Nothing is yours to do">When somebody gives you a step, it stands here and you hear by mail.</Empty>
      )}
      {data.rows.length > 0 && (
        <>
          <StepList title="To do, in this order" rows={now} empty="Nothing can be done right now: your steps wait for others." />
          {later.length > 0 && <StepList title="Comes to you later" rows={later} />}
        </>
      )}
      <Together rows={data.together} />
    </div>
  );
}

/** What the viewer takes with somebody, who does it. */
function Together({ rows }: { rows: readonly StepWithRow[] }) {
  if (rows.length === 0) return null;
  return (
    <section aria-label="With somebody" className="mb-6">
      <h2 className="text-lg mb-2">With somebody</h2>
      <ul className="card">
        {rows.map((row) => (
          <li key={row.stepId} className="px-4 py-2.5 border-t border-line first:border-t-0">
            <p className="flex flex-wrap items-center gap-x-2">
              <ClientCode code={row.clientCode} colour={row.clientColour} name={row.clientName} />
              <Link to={`/pieces/${row.pieceId}`} className="font-semibold break-words min-h-6">
                {row.pieceTitle}
              </Link>
            </p>
            <p className="text-muted text-[13px]">
              {row.stepTitle} with {row.doerName}, {togetherWhen(row)}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}

function togetherWhen({ startedOn, atHand, predictedStartOn, latestFinishOn }: StepWithRow): string {
  if (startedOn !== null) return `begun on ${dayWords(startedOn)}`;
  if (atHand) return 'can begin now';
  if (predictedStartOn !== null) return `from about ${dayWords(predictedStartOn)}`;
  return latestFinishOn === null ? 'without a day yet' : `by ${dayWords(latestFinishOn)}`;
}

function StepList({ title, rows, empty }: { title: string; rows: readonly MyStepRow[]; empty?: string }) {
  return (
    <section aria-label={title} className="mb-6">
      <h2 className="text-lg mb-2">{title}</h2>
      {rows.length === 0 && <p className="text-muted">{empty}</p>}
      <ol className="grid gap-2">
        {rows.map((row) => (
          <StepLine key={row.stepId} row={row} />
        ))}
      </ol>
    </section>
  );
}

function StepLine({ row }: { row: MyStepRow }) {
  return (
    <li className="card p-3.5 flex flex-wrap gap-x-4 gap-y-2 items-center">
      <Wheel segments={row.wheel} size={34} />
      <div className="flex-1 min-w-0 basis-56">
        <p className="flex flex-wrap items-center gap-x-2 gap-y-1 mb-1">
          <ClientCode code={row.clientCode} colour={row.clientColour} name={row.clientName} />
          <span className="font-semibold break-words">{row.pieceTitle}</span>
          <Link
            to={`/brand/${row.clientId}`}
            className="text-pine underline text-[13px] inline-flex items-center min-h-6"
            aria-label={`Brand sheet of ${row.clientName}`}
          >
            Brand sheet
          </Link>
          {row.guidelines > 0 && (
            <Link
              to={`/pieces/${row.pieceId}#guidelines`}
              className="text-pine underline text-[13px] inline-flex items-center min-h-6"
              aria-label={`${count(row.guidelines, 'guideline')} for ${row.pieceTitle}`}
            >
              {count(row.guidelines, 'guideline')}
            </Link>
          )}
          {row.openRemarks > 0 && (
            <Link to={`/pieces/${row.pieceId}/remarks`} className="text-rind underline text-[13px] inline-flex items-center min-h-6">
              {count(row.openRemarks, 'open remark')}
              <span className="sr-only"> on {row.pieceTitle}</span>
            </Link>
          )}
        </p>
        <p>
          {row.stepTitle}
          {row.round > 1 && <span className="text-muted"> · round {row.round}</span>}
          <span className="text-muted">
            {' · '}
            {row.atHand ? (
              <RemainingField stepId={row.stepId} title={`${row.stepTitle} of ${row.pieceTitle}`} leftMinutes={row.leftMinutes} />
            ) : (
              minutesWords(row.leftMinutes)
            )}
          </span>
          {row.thenGoesTo && <span className="text-muted"> · then {row.thenGoesTo}</span>}
        </p>
        {row.isOffered ? (
          <Offer stepId={row.stepId} title={`${row.stepTitle} of ${row.pieceTitle}`} />
        ) : (
          row.atHand && (
            <Clock
              stepId={row.stepId}
              title={`${row.stepTitle} of ${row.pieceTitle}`}
              workedMinutes={row.workedMinutes}
              startedAt={row.clockStartedAt}
            />
          )
        )}
        {row.remark && <p className="text-rind mt-1 break-words">Handed back: {row.remark}</p>}
        {row.inTheWay && <p className="text-rind break-words">In the way: {row.inTheWay}</p>}
        {row.waitsFor && <p className="text-muted">Waits for: {row.waitsFor}</p>}
      </div>
      <div className="tabular sm:text-right flex flex-wrap sm:block items-center gap-2 basis-full sm:basis-auto">
        {row.latestFinishOn ? (
          <>
            <p className="font-medium whitespace-nowrap">by {dayWords(row.latestFinishOn)}</p>
            <DangerTag danger={row.danger} />
          </>
        ) : (
          <Tag>no date</Tag>
        )}
        {row.predictedFinishOn && (
          <p className={`text-[13px] ${row.danger === 'will_be_late' ? 'text-rhubarb font-medium' : 'text-muted'}`}>
            predicted {dayWords(row.predictedFinishOn)}
          </p>
        )}
      </div>
      <Link to={`/pieces/${row.pieceId}`} className={buttonClass(row.atHand ? 'main' : 'plain', 'ml-auto sm:ml-0')}>
        {row.atHand ? (row.startedOn ? 'Go on' : 'Open') : 'Look'}
      </Link>
    </li>
  );
}
