import { useLayoutEffect, useRef, type RefObject } from 'react';
import { useLocation } from 'react-router';

/**
 * For a row of links that scrolls where there is no room for all: the one that is looked at is seen. The row must be `relative`.
 * @param isWhole what stands in the row is all there: its links grow with what they count
 */
export function useActiveSeen(isWhole = true): RefObject<HTMLElement | null> {
  const { pathname } = useLocation();
  const row = useRef<HTMLElement>(null);
  useLayoutEffect(() => {
    const active = row.current?.querySelector<HTMLElement>('[aria-current="page"]');
    if (row.current && active) row.current.scrollLeft = active.offsetLeft - (row.current.clientWidth - active.offsetWidth) / 2;
  }, [pathname, isWhole]);
  return row;
}
