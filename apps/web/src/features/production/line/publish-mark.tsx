import type { LinePlacementShape, LineRowShape } from '@zesting/contract';
import { addDays, type Day, type PlanDoer } from '@zesting/core';
import { toast } from 'sonner';
import { call, wordsOf } from '../../../lib/api';
import { barOf, type Axis } from '../../../lib/axis';
import { dayWords } from '../../../lib/format';
import { usePlacements } from '../../../lib/placements';
import { useWrite } from '../../../lib/queries';
import { useHold } from '../../../lib/use-hold';
import { outcomeOf, type LineChange } from './line-case';
import { HOLD_PX } from './line-bar';
import { LineHint } from './line-hint';

interface MarkProps {
  /** null: the wish date */
  readonly placement: LinePlacementShape | null;
  readonly on: Day;
  readonly row: LineRowShape;
  readonly doers: ReadonlyMap<string, PlanDoer>;
  readonly axis: Axis;
  readonly tightDays: number;
  readonly top: number;
  /** how wide a day is */
  readonly dayPx: number;
}

/** The day on which a piece goes out, as a diamond that is dragged: filled for a placement, hollow for a wish. */
export function PublishMark({ placement, on, row, doers, axis, tightDays, top, dayPx }: MarkProps) {
  const { move } = usePlacements();
  const wish = useWrite(({ wishOn, version }: { wishOn: string; version: number }) =>
    call(`/pieces/${row.id}`, { method: 'PATCH', body: { wishOn }, version }),
  );
  const drop = (to: Day) => {
    if (placement) return move({ placement, on: to, at: placement.at });
    wish.mutate(
      { wishOn: to, version: row.version },
      {
        onSuccess: () =>
          toast(`“${row.title}” is wished for ${dayWords(to)}.`, {
            action: {
              label: 'Undo',
              onClick: () => wish.mutate({ wishOn: on, version: row.version + 1 }, { onError: (problem) => toast.error(wordsOf(problem)) }),
            },
          }),
      },
    );
  };
  const { moving, held } = useHold({ axis, own: { fromOn: on, toOn: on }, onDropped: ({ days }) => drop(addDays(on, days)) });
  const days = moving?.days ?? 0;
  const change: LineChange | null = days === 0 ? null : { kind: 'publish', placementId: placement?.id ?? null, on: addDays(on, days) };
  const outcome = change ? outcomeOf(row, doers, tightDays, change) : undefined;
  const day = addDays(on, days);
  const box = barOf(axis, { fromOn: day, toOn: day });
  if (!box) return null;
  const what = placement ? `${placement.channelName}, ${placement.state === 'out' ? 'out' : 'goes out'}` : 'Wished for';
  const said = `${what} ${dayWords(day)}${placement?.at ? `, ${placement.at}` : ''}`;
  const look = placement ? (placement.state === 'out' ? 'bg-pine border-pine' : 'bg-ink border-ink') : 'bg-card border-ink';
  const diamond = (
    <span
      aria-hidden
      className={`block size-2.5 rotate-45 border-2 ring-1 ring-card ${look} ${moving ? 'outline-2 outline-offset-2' : ''}`}
    />
  );
  const place = { left: `calc(${box.left + box.width / 2}% - 12px)`, top };
  // side by side on days that are narrower, they could not be told apart by a finger
  const isHoldable = moving !== undefined || dayPx >= HOLD_PX || row.placements.length < 2;
  if (placement?.state === 'out' || !isHoldable)
    return (
      <span className="absolute size-6 grid place-items-center" style={place} title={said}>
        {diamond}
        <span className="sr-only">{said}</span>
      </span>
    );
  return (
    <>
      <button
        type="button"
        className="absolute size-6 grid place-items-center cursor-grab touch-none rounded-md z-[5]"
        style={place}
        title={said}
        aria-label={`${said}. Arrow keys move the day, Enter sets it`}
        {...held('whole')}
      >
        {diamond}
      </button>
      {moving && <LineHint title={row.title} change={change} outcome={outcome} />}
    </>
  );
}
