import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import { daysOf, heldInSight, type Axis, type Hold } from './axis';

/** What is being moved, by how many days. */
export interface Moving {
  readonly hold: Hold;
  readonly days: number;
}

interface HoldOptions {
  readonly axis: Axis;
  /** the period of the bar before it is moved */
  readonly own: Axis;
  /** it was let go of, by so many days from where it stood */
  readonly onDropped: (moved: Moving) => void;
}

/**
 * Moves a bar on an axis of days: by pointer, or by the arrow keys (with Shift by a week), set by Enter and left by Escape. Whatever is taken hold of is
 * a button within an element marked `data-axis` that is as wide as the axis.
 */
export function useHold({ axis, own, onDropped }: HoldOptions) {
  const [moving, setMoving] = useState<Moving>();
  const drop = (now: Moving | undefined) => {
    setMoving(undefined);
    if (now && now.days !== 0) onDropped(now);
  };
  const take = (hold: Hold) => (event: PointerEvent<HTMLElement>) => {
    const width = event.currentTarget.closest('[data-axis]')?.getBoundingClientRect().width ?? 0;
    if (event.button !== 0 || width === 0) return;
    event.preventDefault();
    const target = event.currentTarget;
    target.focus();
    target.setPointerCapture(event.pointerId);
    const startX = event.clientX;
    let now: Moving = { hold, days: 0 };
    const move = (moved: globalThis.PointerEvent) => {
      const days = heldInSight(axis, own, hold, daysOf(axis, (moved.clientX - startX) / width));
      if (days === now.days) return;
      now = { hold, days };
      setMoving(now);
    };
    const end = (ended: globalThis.PointerEvent) => {
      target.removeEventListener('pointermove', move);
      target.removeEventListener('pointerup', end);
      target.removeEventListener('pointercancel', end);
      drop(ended.type === 'pointerup' ? now : undefined);
    };
    target.addEventListener('pointermove', move);
    target.addEventListener('pointerup', end);
    target.addEventListener('pointercancel', end);
  };
  const press = (hold: Hold) => (event: KeyboardEvent) => {
    const step = (event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0) * (event.shiftKey ? 7 : 1);
    if (step !== 0) {
      event.preventDefault();
      setMoving({ hold, days: heldInSight(axis, own, hold, (moving?.hold === hold ? moving.days : 0) + step) });
    } else if (moving && event.key === 'Enter') {
      event.preventDefault();
      drop(moving);
    } else if (moving && event.key === 'Escape') {
      event.preventDefault();
      setMoving(undefined);
    }
  };
  const held = (hold: Hold) => ({
    onPointerDown: take(hold),
    onKeyDown: press(hold),
    onBlur: () => {
      if (moving?.hold === hold) setMoving(undefined);
    },
  });
  return { moving, held };
}
