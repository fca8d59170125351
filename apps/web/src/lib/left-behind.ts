import type { LeftBehindShape } from '@zesting/contract';
import { useSyncExternalStore } from 'react';

let asked: LeftBehindShape | null = null;
const listeners = new Set<() => void>();

/** Asks whether what was made from a piece that moved is to move along; null: it has been answered. */
export function askAlong(left: LeftBehindShape | null): void {
  asked = left;
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** What is being asked about now. */
export const useLeftBehind = (): LeftBehindShape | null => useSyncExternalStore(subscribe, () => asked);
