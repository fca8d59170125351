import type { ClientShape, GoalBody, GoalShape } from '@zesting/contract';
import { lazy, Suspense, useMemo } from 'react';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Tag } from '../../ui/tags';
import { figure, paceWords, partOf, rounded, STANDINGS, unitOf } from './goal-words';

// the drawing of charts is large, and nobody waits for it
const LineChart = lazy(() => import('../../ui/line-chart').then((module) => ({ default: module.LineChart })));

interface GoalCardProps {
  readonly goal: GoalShape;
  readonly client: ClientShape;
  readonly todayOn: string;
  readonly onOpen: (name: string) => void;
}

/** A goal with how it stands: beside the straight line, in words, by quarters, and its steps. */
export function GoalCard({ goal, client, todayOn, onOpen }: GoalCardProps) {
  const { pace } = goal;
  const put = useWrite((part: Partial<GoalBody>) =>
    call(`/goals/${goal.id}`, { method: 'PUT', body: { ...bodyOf(goal), ...part }, version: goal.version }),
  );
  const away = useWrite(() => call(`/goals/${goal.id}`, { method: 'DELETE' }));
  const back = useWrite(() => call(`/goals/${goal.id}/restore`, { method: 'POST' }));
  const [words, tone] = STANDINGS[pace.standing];
  const channel = client.channels.find(({ id }) => id === goal.channelId);
  const pillars = client.pillars.filter(({ id }) => goal.pillarIds.includes(id));
  const steps = put.isPending && put.variables.steps ? put.variables.steps : goal.steps;
  const unit = unitOf(goal);
  return (
    <section aria-label={goal.name} className="card p-4">
      <div className="flex flex-wrap items-start gap-x-3 gap-y-1">
        <div className="flex-1 min-w-0 basis-64">
          <h2 className="text-lg leading-tight break-words">{goal.name}</h2>
          <p className="text-muted text-[13px]">
            {[channel?.name, pillars.map(({ name }) => name).join(', ')].filter(Boolean).join(' · ') || client.name}
          </p>
        </div>
        <Tag tone={tone}>{words}</Tag>
        <div className="flex gap-2">
          {goal.measure === 'reading' && (
            <Button aria-label={`Type a reading of ${goal.name}`} onClick={() => onOpen(`read:${goal.id}`)}>
              Reading
            </Button>
          )}
          <Button aria-label={`Change ${goal.name}`} onClick={() => onOpen(`edit:${goal.id}`)}>
            Change
          </Button>
          <Button
            look="quiet"
            aria-label={`Put away ${goal.name}`}
            onClick={() =>
              away.mutate(undefined, {
                onSuccess: () => toast(`“${goal.name}” is put away.`, { action: { label: 'Take it back', onClick: () => back.mutate() } }),
              })
            }
          >
            Put away
          </Button>
        </div>
      </div>
      <p className="mt-2 tabular">
        <span className="text-xl font-semibold">{pace.value === null ? '–' : figure(pace.value)}</span>
        <span className="text-muted">
          {' '}
          of {figure(goal.target)} {unit} by {dayWords(goal.byOn)}, from {figure(goal.startValue)} on {dayWords(goal.startOn)}
        </span>
      </p>
      <Way goal={goal} />
      <p className="text-[13px] mt-1">{paceWords(goal)}</p>
      <div className="grid gap-4 md:grid-cols-[minmax(0,1fr)_18rem] mt-3 items-start">
        <Chart goal={goal} todayOn={todayOn} unit={unit} />
        <Quarters goal={goal} />
      </div>
      {steps.length > 0 && (
        <ul className="mt-2" aria-label={`Steps of ${goal.name}`}>
          {steps.map((step, index) => (
            <li key={index}>
              <label className="inline-flex items-center gap-2 min-h-7">
                <input
                  type="checkbox"
                  className="size-4 accent-pine"
                  checked={step.isDone}
                  disabled={put.isPending}
                  onChange={(event) =>
                    put.mutate({ steps: steps.map((other, at) => (at === index ? { ...other, isDone: event.target.checked } : other)) })
                  }
                />
                <span className={step.isDone ? 'text-muted line-through' : ''}>{step.text}</span>
              </label>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

export const bodyOf = ({ name, channelId, measure, unit, startValue, target, startOn, byOn, pillarIds, steps }: GoalBody): GoalBody => ({
  name,
  channelId,
  measure,
  unit,
  startValue,
  target,
  startOn,
  byOn,
  pillarIds,
  steps,
});

/** How far it is from start to target, and how far it should be today. */
function Way({ goal }: { goal: GoalShape }) {
  const [real, expected] = [partOf(goal, goal.pace.value ?? goal.startValue), partOf(goal, goal.pace.expected)];
  return (
    <div className="relative h-3 mt-2" aria-hidden>
      <span className="absolute inset-x-0 top-0.5 h-2 rounded-sm bg-sunk" />
      <span className="absolute left-0 top-0.5 h-2 rounded-sm bg-pine" style={{ width: `${100 * real}%` }} />
      <span className="absolute -top-0.5 h-4 w-0.5 bg-ink" style={{ left: `calc(${100 * expected}% - 1px)` }} />
    </div>
  );
}

function Chart({ goal, todayOn, unit }: { goal: GoalShape; todayOn: string; unit: string }) {
  const lines = useMemo(
    () => [
      { name: 'asked for', isAim: true, points: [[goal.startOn, goal.startValue] as const, [goal.byOn, goal.target] as const] },
      {
        name: unit || 'read',
        points: [[goal.startOn, goal.startValue] as const, ...goal.readings.map(({ on, value }) => [on, value] as const)],
      },
    ],
    [goal, unit],
  );
  if (goal.readings.length === 0 || goal.startOn >= todayOn)
    return <p className="text-muted text-[13px]">A line is drawn once something is read.</p>;
  return (
    <Suspense fallback={<div style={{ height: 180 }} />}>
      <LineChart label={`${goal.name}: what was read, beside the straight line to the target`} lines={lines} />
    </Suspense>
  );
}

function Quarters({ goal }: { goal: GoalShape }) {
  return (
    <table className="w-full text-[13px] tabular">
      <caption className="sr-only">{goal.name} by quarters</caption>
      <thead>
        <tr className="text-muted text-left">
          <th scope="col" className="font-medium py-0.5">
            Quarter
          </th>
          <th scope="col" className="font-medium text-right">
            asked for
          </th>
          <th scope="col" className="font-medium text-right">
            is
          </th>
        </tr>
      </thead>
      <tbody>
        {goal.quarters.map(({ year, quarter, endOn, expected, value }) => (
          <tr key={`${year} ${quarter}`} className="border-t border-line">
            <th scope="row" className="font-normal text-left py-0.5" title={`until ${dayWords(endOn)}`}>
              Q{quarter} {year}
            </th>
            <td className="text-right text-muted">{goal.measure === 'pieces' ? Math.round(expected) : rounded(expected)}</td>
            <td className="text-right">{value === null ? '–' : figure(value)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
