import { useCallback, useSyncExternalStore } from 'react';

/**
 * What is typed and not saved yet, by what it belongs to. It lives outside the pages, so that going elsewhere inside the application and
 * coming back, or looking at another tab of a page, loses nothing; it ends when it is saved, left as it was, or when the person signs out.
 */
const kept = new Map<string, unknown>();
const listeners = new Set<() => void>();

function put(key: string, value: unknown): void {
  if (value === null) kept.delete(key);
  else kept.set(key, value);
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

type Next<T> = T | null | ((before: T | null) => T | null);

/**
 * As `useState`, but kept while the page that uses it is away.
 * @param key what it belongs to, such as `piece:<id>:notes`
 * @returns null where nothing was typed
 */
export function useKept<T>(key: string): [T | null, (next: Next<T>) => void] {
  const value = useSyncExternalStore(subscribe, () => kept.get(key) ?? null) as T | null; // what `set` put there under this key
  const set = useCallback(
    (next: Next<T>) =>
      put(key, typeof next === 'function' ? (next as (before: T | null) => T | null)((kept.get(key) ?? null) as T | null) : next),
    [key],
  );
  return [value, set];
}

let ownerId: string | undefined;

/** Says whose window this is now: what somebody else typed in it before is forgotten. */
export function keepFor(personId: string): void {
  if (ownerId !== undefined && ownerId !== personId) forgetKept();
  ownerId = personId;
}

/** Forgets all that was typed: another person may sign in next. */
export function forgetKept(): void {
  kept.clear();
  for (const listener of listeners) listener();
}

/** Whether anything typed is not saved: asked before the window is closed. */
export const hasKept = (): boolean => kept.size > 0;

if (typeof window !== 'undefined')
  window.addEventListener('beforeunload', (event) => {
    if (hasKept()) event.preventDefault();
  });
