import { useDraggable } from '@dnd-kit/core';
import { useQuery } from '@tanstack/react-query';
import type { LoadPersonShape, LoadStepShape } from '@zesting/contract';
import type { Day } from '@zesting/core';
import { GripVertical, X } from 'lucide-react';
import { Link } from 'react-router';
import { personLoadQuery } from '../../../api/production';
import { wordsOf } from '../../../lib/api';
import { dayWords, minutesWords } from '../../../lib/format';
import { useClients } from '../../../lib/queries';
import { useOpened } from '../../../lib/use-opened';
import { Button, IconButton } from '../../../ui/button';
import { Failed, Loading } from '../../../ui/page';
import { ClientCode, DangerTag } from '../../../ui/tags';
import { AssignDialog } from '../assign-dialog';
import { isOfOverload, stepsWithin, worstOf } from './load-case';

interface PanelProps {
  readonly person: LoadPersonShape;
  /** null: all that they have */
  readonly day: Day | null;
  readonly onClose: () => void;
}

/** What somebody has to do, on a day or in all: each step is dragged to somebody else's row, or given by its button. */
export function LoadPanel({ person, day, onClose }: PanelProps) {
  const load = useQuery(personLoadQuery(person.personId));
  const all = load.data?.steps ?? [];
  const steps = day === null ? all : stepsWithin(all, day, day);
  const over = day === null ? worstOf(person) : person.overloads.find(({ dueOn }) => dueOn === day);
  return (
    <aside aria-label={`Work of ${person.name}`} className="card p-4 lg:sticky lg:top-4 lg:max-h-[calc(100vh-5rem)] overflow-y-auto">
      <div className="flex items-start gap-2">
        <h2 className="text-lg flex-1">
          {person.name}
          <span className="block text-muted text-[13px] font-normal">{day === null ? 'All that is open' : dayWords(day)}</span>
        </h2>
        <IconButton label="Close" onClick={onClose}>
          <X size={16} aria-hidden />
        </IconButton>
      </div>
      {over && (
        <p className="rounded-md bg-rhubarb-soft text-rhubarb px-3 py-2 my-2 text-[13px]">
          {minutesWords(over.overMinutes)} too much from {dayWords(over.fromOn)} to {dayWords(over.dueOn)}, whatever the order. It comes
          from the steps that are marked.
        </p>
      )}
      {load.isError ? (
        <Failed message={wordsOf(load.error)} onRetry={() => void load.refetch()} />
      ) : load.isPending ? (
        <Loading />
      ) : steps.length === 0 ? (
        <p className="text-muted mt-2">Nothing{day === null ? ' is open.' : ' is predicted for that day.'}</p>
      ) : (
        <ul>
          {steps.map((step) => (
            <StepCard
              key={step.stepId}
              step={step}
              personId={person.personId}
              isOver={over !== undefined && isOfOverload(step, over, person.todayOn)}
            />
          ))}
        </ul>
      )}
    </aside>
  );
}

function StepCard({ step, personId, isOver }: { step: LoadStepShape; personId: string; isOver: boolean }) {
  const { clientOf, to } = useClients();
  const { opened, open, close } = useOpened();
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: step.stepId,
    data: { step },
    disabled: step.pieceId === null,
  });
  const client = step.clientId === null ? undefined : clientOf(step.clientId);
  const dates = `${dayWords(step.startOn)} to ${dayWords(step.finishOn)}${step.latestFinishOn ? `, finish by ${dayWords(step.latestFinishOn)}` : ''}`;
  return (
    <li
      ref={setNodeRef}
      className={`py-2.5 border-t border-line ${isOver ? 'border-l-2 border-l-rhubarb pl-2' : ''} ${isDragging ? 'relative z-40 bg-card card px-2' : ''}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      {step.pieceId === null ? (
        <p className="text-muted">A step for a client that you do not look after</p>
      ) : (
        <div className="flex items-start gap-1.5">
          <span className="cursor-grab touch-none text-muted pt-0.5" title="Drag it to somebody else’s row" {...listeners}>
            <GripVertical size={15} aria-hidden />
          </span>
          <div className="min-w-0 flex-1">
            <p className="flex flex-wrap items-center gap-x-2">
              <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
              <strong>{step.title}</strong>
              <DangerTag danger={step.danger === 'fine' ? null : step.danger} />
            </p>
            <Link to={to(`/pieces/${step.pieceId}`)} className="block truncate no-underline hover:underline" title={step.pieceTitle ?? ''}>
              {step.pieceTitle}
            </Link>
          </div>
          <Button
            look="quiet"
            aria-label={`Give ${step.title ?? ''} of ${step.pieceTitle ?? ''} to somebody else`}
            onClick={() => open(`give-${step.stepId}`)}
          >
            Give…
          </Button>
        </div>
      )}
      <p className="text-muted text-[12.5px] tabular">
        {minutesWords(step.minutes)} left, {dates}
      </p>
      {opened === `give-${step.stepId}` && (
        <AssignDialog
          step={{
            id: step.stepId,
            title: step.title ?? '',
            leftMinutes: step.minutes,
            spanDays: step.spanDays,
            doerId: personId,
            version: step.version,
          }}
          onClose={close}
        />
      )}
    </li>
  );
}
