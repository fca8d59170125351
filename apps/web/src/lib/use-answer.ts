import { useEffect, useState } from 'react';
import { wordsOf } from './api';

export type Answered<T> =
  { readonly state: 'waiting' } | { readonly state: 'failed'; readonly words: string } | { readonly state: 'here'; readonly value: T };

/** Asks once and again on `again()`: for the small entries, which do without the query cache. */
export function useAnswer<T>(ask: () => Promise<T>): { answer: Answered<T>; again: () => void } {
  const [answer, setAnswer] = useState<Answered<T>>({ state: 'waiting' });
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    let isCurrent = true;
    ask().then(
      (value) => isCurrent && setAnswer({ state: 'here', value }),
      (error: unknown) => isCurrent && setAnswer({ state: 'failed', words: wordsOf(error) }),
    );
    return () => {
      isCurrent = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- asked once per turn; what is asked does not change on a page
  }, [turn]);
  return { answer, again: () => setTurn((before) => before + 1) };
}
