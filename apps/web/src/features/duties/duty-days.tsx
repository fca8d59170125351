import { useQuery } from '@tanstack/react-query';
import type { DutyDayShape, DutyShape } from '@zesting/contract';
import { Link } from 'react-router';
import { dutyDaysQuery } from '../../api/duties';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed, Loading } from '../../ui/page';
import { Tag, type Tone } from '../../ui/tags';

const STATES: Record<DutyDayShape['state'], readonly [words: string, tone: Tone]> = {
  ahead: ['to come', 'calm'],
  open: ['can be done', 'lake'],
  due: ['due today', 'rind'],
  missed: ['missed', 'rhubarb'],
  done: ['done', 'pine'],
  left_out: ['left out', 'calm'],
  made: ['piece made', 'pine'],
};

interface DutyDaysProps {
  readonly duty: DutyShape;
  readonly onClose: () => void;
}

/** The times of a duty: three months back and a dozen ahead, and what can be said of each. */
export function DutyDays({ duty, onClose }: DutyDaysProps) {
  const days = useQuery(dutyDaysQuery(duty.id));
  const leaveOut = useWrite((untilOn: string) => call(`/duties/${duty.id}/missed`, { method: 'POST', body: { untilOn } }));
  const last = duty.lastMissedOn;
  return (
    <Dialog open onClose={onClose} title={duty.title} description="The last three months, and what comes.">
      {duty.missed > 1 && last !== null && (
        <p className="flex flex-wrap items-center gap-2 mb-3">
          <span className="text-rhubarb font-medium">{count(duty.missed, 'time')} missed.</span>
          <Button disabled={leaveOut.isPending} onClick={() => leaveOut.mutate(last)}>
            Leave all of them out
          </Button>
        </p>
      )}
      {days.isError ? (
        <Failed message={wordsOf(days.error)} onRetry={() => void days.refetch()} />
      ) : !days.data ? (
        <Loading />
      ) : days.data.days.length === 0 ? (
        <p className="text-muted">Nothing has been, and nothing is to come.</p>
      ) : (
        <ol className="max-h-[55vh] overflow-y-auto" tabIndex={0} aria-label={`Days of ${duty.title}`}>
          {days.data.days.map((day) => (
            <DayLine key={day.on} day={day} duty={duty} />
          ))}
        </ol>
      )}
    </Dialog>
  );
}

function DayLine({ day, duty }: { day: DutyDayShape; duty: DutyShape }) {
  const { to } = useClients();
  const mark = useWrite((as: 'done' | 'left_out' | 'open') =>
    call(`/duties/${duty.id}/day`, { method: 'PUT', body: { on: day.on, mark: as, ticks: day.ticks } }),
  );
  const [words, tone] = STATES[day.state];
  const isSaid = day.state === 'done' || day.state === 'left_out';
  const name = dayWords(day.dueOn);
  return (
    <li className="border-t border-line first:border-t-0 py-1 flex flex-wrap items-center gap-x-3 min-h-9">
      <span className="tabular w-28">{name}</span>
      <Tag tone={tone}>{words}</Tag>
      <span className="text-muted text-[13px] flex-1 min-w-0 truncate">
        {day.by ?? (day.doer === 'second' && duty.secondName ? `${duty.secondName} does it` : '')}
        {day.ticks.length > 0 && day.ticks.length < duty.checklist.length && ` ${day.ticks.length} of ${duty.checklist.length} ticked`}
      </span>
      {day.pieceId !== null && (
        <Link to={to(`/pieces/${day.pieceId}`)} className="text-pine underline min-h-6">
          Look at the piece
        </Link>
      )}
      {isSaid && (
        <Button look="quiet" disabled={mark.isPending} aria-label={`Take back ${name}`} onClick={() => mark.mutate('open')}>
          Take back
        </Button>
      )}
      {!isSaid && day.state !== 'made' && (
        <span className="flex gap-1">
          {!duty.piece && day.state !== 'ahead' && (
            <Button look="quiet" disabled={mark.isPending} aria-label={`Done on ${name}`} onClick={() => mark.mutate('done')}>
              Done
            </Button>
          )}
          <Button look="quiet" disabled={mark.isPending} aria-label={`Leave out ${name}`} onClick={() => mark.mutate('left_out')}>
            Leave out
          </Button>
        </span>
      )}
    </li>
  );
}
