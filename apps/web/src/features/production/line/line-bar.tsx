import type { LineRowShape, PathChangeBody } from '@zesting/contract';
import { addDays, daysBetween, earlierOf, isByClient, laterOf, type PlanDoer } from '@zesting/core';
import { Pin } from 'lucide-react';
import { toast } from 'sonner';
import { call, wordsOf } from '../../../lib/api';
import { barOf, dragged, type Axis } from '../../../lib/axis';
import { count, dayWords } from '../../../lib/format';
import { useWrite } from '../../../lib/queries';
import { useHold } from '../../../lib/use-hold';
import { backOf, bodyOf, changeOf, offDays, outcomeOf, type Bar, type LineChange } from './line-case';
import { LineHint } from './line-hint';

interface BarProps {
  readonly bar: Bar;
  readonly row: LineRowShape;
  readonly doers: ReadonlyMap<string, PlanDoer>;
  readonly axis: Axis;
  readonly tightDays: number;
  readonly top: number;
  /** how wide a day is */
  readonly dayPx: number;
}

/** What is narrower cannot be taken hold of: it is changed closer up, or on the piece's page. An end needs as much again beside it. */
export const HOLD_PX = 24;
const HATCH = 'repeating-linear-gradient(135deg, transparent 0 4px, rgb(0 0 0 / 0.2) 4px 6px)';

/** How an open step looks: what the client does is lake, what is late is rhubarb and hatched. */
function lookOf({ step, untilOn, toOn }: Bar): { readonly className: string; readonly isLate: boolean } {
  const isLate = (untilOn !== null && toOn > untilOn) || step.danger === 'overdue' || step.danger === 'out_of_reach';
  if (isLate) return { className: 'bg-rhubarb text-on-pine', isLate };
  return { className: isByClient(step.kind) ? 'bg-lake text-on-pine' : 'bg-pine text-on-pine', isLate };
}

/** A step that is done: a thin line over the days that it took. */
export function DoneBar({ bar, axis, top }: Pick<BarProps, 'bar' | 'axis' | 'top'>) {
  const box = barOf(axis, bar);
  if (!box) return null;
  const { step } = bar;
  const said = `${step.title}${step.round > 1 ? `, round ${step.round}` : ''}, ${step.doerName ?? 'nobody'}: done ${dayWords(bar.fromOn)} to ${dayWords(bar.toOn)}`;
  return (
    <span
      className="absolute h-2 rounded-sm bg-pine opacity-45 border-r-2 border-card"
      style={{ left: `${box.left}%`, width: `${box.width}%`, top: top + 6 }}
      title={said}
    >
      <span className="sr-only">{said}</span>
    </span>
  );
}

/** One open step over its days, with the line behind it to the day by which it must end. */
export function LineBar({ bar, row, doers, axis, tightDays, top, dayPx }: BarProps) {
  const { step, untilOn } = bar;
  const doer = doers.get(step.doer);
  const send = useWrite((change: PathChangeBody) => call(`/pieces/${row.id}/path`, { method: 'POST', body: { changes: [change] } }), {
    quiet: true,
  });
  const onDropped = (change: LineChange | null) => {
    if (!change || change.kind === 'publish') return;
    send.mutate(bodyOf(change, step), {
      onSuccess: () =>
        toast(
          change.kind === 'pin'
            ? `“${step.title}” is pinned to ${dayWords(change.finishOn)}.`
            : `“${step.title}” has ${count(change.spanDays, 'working day')}.`,
          {
            action: {
              label: 'Undo',
              onClick: () => send.mutate(backOf(change, step), { onError: (problem) => toast.error(wordsOf(problem)) }),
            },
          },
        ),
      onError: (problem) => toast.error(wordsOf(problem)),
    });
  };
  const { moving, held } = useHold({
    axis,
    own: bar,
    onDropped: ({ hold, days }) => onDropped(doer ? changeOf(bar, doer, hold, days) : null),
  });
  const change = moving && doer ? changeOf(bar, doer, moving.hold, moving.days) : null;
  const outcome = change ? outcomeOf(row, doers, tightDays, change) : undefined;
  const period = moving ? dragged(bar, moving.hold, moving.days) : bar;
  const box = barOf(axis, period);
  const tail = untilOn !== null && untilOn > bar.toOn ? barOf(axis, { fromOn: addDays(bar.toOn, 1), toOn: untilOn }) : null;
  const widthPx = box ? dayPx * (daysBetween(laterOf(bar.fromOn, axis.fromOn), earlierOf(bar.toOn, axis.toOn)) + 1) : 0;
  const isHeld = moving !== undefined;
  // an end that is held stays, however short the bar becomes
  const hasEnd = (isHeld && moving.hold === 'end') || (widthPx >= 2 * HOLD_PX + 4 && bar.toOn <= axis.toOn);
  const { className, isLate } = lookOf(bar);
  const words = `${step.title}${step.round > 1 ? `, round ${step.round}` : ''}, ${step.doerName ?? 'nobody yet'}: ${dayWords(bar.fromOn)} to ${dayWords(bar.toOn)}`;
  const by = step.pinnedFinishOn ? `, pinned to ${dayWords(step.pinnedFinishOn)}` : untilOn ? `, finish by ${dayWords(untilOn)}` : '';
  const said = `${words}${by}`;
  const how = 'Arrow keys pin another finish, Enter sets it';
  return (
    <>
      {tail && !moving && (
        <span
          aria-hidden
          className={`absolute h-1.5 border border-l-0 rounded-r-sm ${isByClient(step.kind) ? 'border-lake' : 'border-pine'}`}
          style={{ left: `${tail.left}%`, width: `${tail.width}%`, top: top + 7 }}
        />
      )}
      {box && (
        <div
          className={`absolute h-5 rounded-sm ${className} ${moving ? 'ring-2 ring-ink z-10' : ''}`}
          style={{ left: `${box.left}%`, width: `${box.width}%`, top, ...(isLate ? { backgroundImage: HATCH } : {}) }}
        >
          {doer && offDays(doer, period).map((day) => <Off key={day} period={period} day={day} axis={axis} />)}
          <span className="absolute inset-0 px-1 text-[12px] leading-5 truncate pointer-events-none" aria-hidden>
            {step.pinnedFinishOn && <Pin size={11} className="inline mr-0.5 -mt-0.5" />}
            <span className={isLate ? 'bg-rhubarb px-0.5 rounded-sm' : ''}>{step.title}</span>
          </span>
          {isHeld || widthPx >= HOLD_PX ? (
            <button
              type="button"
              className={`absolute -inset-y-[3px] left-0 cursor-grab touch-none rounded-sm ${hasEnd ? 'right-[26px]' : 'right-0'}`}
              aria-label={`${said}. ${how}`}
              title={said}
              {...held('whole')}
            />
          ) : (
            <span className="absolute inset-0" title={said}>
              <span className="sr-only">{said}</span>
            </span>
          )}
          {hasEnd && (
            <button
              type="button"
              className="absolute right-0 -inset-y-[3px] w-[26px] cursor-ew-resize touch-none flex items-center justify-end"
              aria-label={`End of ${step.title}, ${count(step.spanDays, 'working day')}: arrow keys give it more or fewer, Enter sets them`}
              {...held('end')}
            >
              <span className="h-3 w-0.5 mr-0.5 rounded-full bg-paper" aria-hidden />
            </button>
          )}
        </div>
      )}
      {moving && <LineHint title={`${row.title}: ${step.title}`} change={change} outcome={outcome} />}
    </>
  );
}

/** A day within a bar on which nobody works. */
function Off({ period, day, axis }: { period: Axis; day: Axis['fromOn']; axis: Axis }) {
  const whole = barOf(axis, period);
  const own = barOf(axis, { fromOn: day, toOn: day });
  if (!whole || !own) return null;
  return (
    <span
      aria-hidden
      className="absolute inset-y-0 bg-paper opacity-45"
      style={{ left: `${(100 * (own.left - whole.left)) / whole.width}%`, width: `${(100 * own.width) / whole.width}%` }}
    />
  );
}
