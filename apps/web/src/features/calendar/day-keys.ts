import type { KeyboardCoordinateGetter } from '@dnd-kit/core';

const STEPS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** An arrow key takes what is lifted to the nearest day in that direction, so that a day is one press. */
export const dayKeys: KeyboardCoordinateGetter = (event, { currentCoordinates, context }) => {
  const direction = STEPS[event.code];
  const lifted = context.collisionRect;
  if (!direction || !lifted) return undefined;
  event.preventDefault();
  const [dx, dy] = direction;
  const centre = { x: lifted.left + lifted.width / 2, y: lifted.top + lifted.height / 2 };
  let best: { x: number; y: number; far: number } | undefined;
  for (const rect of context.droppableRects.values()) {
    const [x, y] = [rect.left + rect.width / 2, rect.top + rect.height / 2];
    const along = (x - centre.x) * dx + (y - centre.y) * dy;
    const aside = Math.abs((x - centre.x) * dy) + Math.abs((y - centre.y) * dx);
    if (along < 8) continue;
    const far = along + aside * 3;
    if (!best || far < best.far) best = { x, y, far };
  }
  if (!best) return currentCoordinates;
  return { x: best.x - lifted.width / 2, y: best.y - lifted.height / 2 };
};
