import { useState } from 'react';

/**
 * A value as it was changed last, until what the server tells has followed: without it, a tick shows for a moment what was before, between the answer
 * to the write and that to the reading after it.
 * @param told what the server tells
 * @returns what to show, and what holds another value; undefined lets it go, where the write was refused
 */
export function useHeld<T>(told: T): [T, (next: T | undefined) => void] {
  const [held, setHeld] = useState<{ readonly value: T; readonly over: string }>();
  const now = JSON.stringify(told);
  const isHeld = held !== undefined && held.over === now;
  if (held !== undefined && !isHeld) setHeld(undefined); // it has followed
  return [isHeld ? held.value : told, (next) => setHeld(next === undefined ? undefined : { value: next, over: now })];
}
