import type { Area } from '@zesting/core';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';

const SIDE = 10_000;
/** what a tap means: so much of a side round it */
const TAPPED = 1_600;
/** a drag shorter than this is a tap */
const LEAST_DRAG = 300;
const STEP = 400;
const MOVES: ReadonlyMap<string, Point> = new Map([
  ['ArrowLeft', { x: -STEP, y: 0 }],
  ['ArrowRight', { x: STEP, y: 0 }],
  ['ArrowUp', { x: 0, y: -STEP }],
  ['ArrowDown', { x: 0, y: STEP }],
]);
/** where keys begin */
const MIDDLE: Area = { x: 3_500, y: 3_500, width: 3_000, height: 3_000 };

interface Point {
  readonly x: number;
  readonly y: number;
}

const between = (value: number, least: number, most: number): number => Math.max(least, Math.min(most, value));

/** The area from one point to another. */
const across = (one: Point, other: Point): Area => ({
  x: Math.min(one.x, other.x),
  y: Math.min(one.y, other.y),
  width: Math.abs(one.x - other.x),
  height: Math.abs(one.y - other.y),
});

/** The area round a point that was tapped. */
const round = ({ x, y }: Point): Area => ({
  x: between(x - TAPPED / 2, 0, SIDE - TAPPED),
  y: between(y - TAPPED / 2, 0, SIDE - TAPPED),
  width: TAPPED,
  height: TAPPED,
});

/** What a key does to an area: arrows move it, with Shift they size it; null for any other key. */
export function areaAfter(area: Area, key: string, isSizing: boolean): Area | null {
  const move = MOVES.get(key);
  if (!move) return null;
  const { x: dx, y: dy } = move;
  if (isSizing)
    return { ...area, width: between(area.width + dx, STEP, SIDE - area.x), height: between(area.height + dy, STEP, SIDE - area.y) };
  return { ...area, x: between(area.x + dx, 0, SIDE - area.width), y: between(area.y + dy, 0, SIDE - area.height) };
}

/**
 * Lies over a picture and lets an area of it be pointed at: by a tap, by dragging with a mouse, or with the keys.
 * @param label what the picture is called
 * @param onPick the area, in ten-thousandths of what is seen
 */
export function AreaPicker({ label, onPick }: { label: string; onPick: (area: Area) => void }) {
  const [start, setStart] = useState<Point>();
  const [drawn, setDrawn] = useState<Area>();
  const [keyed, setKeyed] = useState<Area>();
  const ground = useRef<HTMLDivElement>(null);
  const pointOf = (event: PointerEvent): Point => {
    const box = ground.current?.getBoundingClientRect();
    if (!box) return { x: 0, y: 0 };
    return {
      x: Math.round(between(((event.clientX - box.left) / box.width) * SIDE, 0, SIDE)),
      y: Math.round(between(((event.clientY - box.top) / box.height) * SIDE, 0, SIDE)),
    };
  };
  const take = (event: PointerEvent) => {
    if (!start) return;
    const area = across(start, pointOf(event));
    setStart(undefined);
    setDrawn(undefined);
    onPick(area.width < LEAST_DRAG || area.height < LEAST_DRAG ? round(start) : area);
  };
  const onKey = (event: KeyboardEvent) => {
    const area = keyed ?? MIDDLE;
    const next = areaAfter(area, event.key, event.shiftKey);
    if (next) {
      event.preventDefault();
      setKeyed(next);
    }
  };
  const shown = drawn ?? keyed;
  return (
    <div
      ref={ground}
      className="absolute inset-0 cursor-crosshair border-2 border-dashed border-lake rounded-md touch-pan-y"
      onPointerDown={(event) => {
        if (event.target instanceof HTMLButtonElement && event.target.dataset['keys'] !== undefined) return;
        // a finger that moves scrolls the page; a mouse draws
        if (event.pointerType === 'mouse') event.currentTarget.setPointerCapture(event.pointerId);
        setStart(pointOf(event));
      }}
      onPointerMove={(event) => start && event.pointerType === 'mouse' && setDrawn(across(start, pointOf(event)))}
      onPointerUp={take}
      onPointerCancel={() => {
        setStart(undefined);
        setDrawn(undefined);
      }}
    >
      {shown && (
        <div
          className="absolute border-2 border-lake outline-1 outline-card bg-lake/15 rounded-sm pointer-events-none"
          style={{ left: `${shown.x / 100}%`, top: `${shown.y / 100}%`, width: `${shown.width / 100}%`, height: `${shown.height / 100}%` }}
        />
      )}
      <button
        type="button"
        data-keys=""
        className="absolute bottom-2 left-2 min-h-8 px-2 rounded-md bg-card border border-lake text-lake text-[12px] font-semibold sr-only focus:not-sr-only focus:absolute"
        aria-label={`Point at a part of ${label}: arrow keys move it, with Shift they size it, Enter takes it`}
        onFocus={() => setKeyed(MIDDLE)}
        onBlur={() => setKeyed(undefined)}
        onKeyDown={onKey}
        onClick={() => onPick(keyed ?? MIDDLE)}
      >
        Arrows move, Shift sizes, Enter takes
      </button>
    </div>
  );
}
