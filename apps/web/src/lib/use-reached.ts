import { useEffect } from 'react';
import { useLocation } from 'react-router';

/**
 * Brings the part of a page into view that its address names, once it is drawn: a page that loads its parts is not there yet when the browser looks.
 * @param id of the part
 * @param isDrawn false while it is still on its way
 */
export function useReached(id: string, isDrawn: boolean): void {
  const { hash, key } = useLocation();
  useEffect(() => {
    if (isDrawn && hash === `#${id}`) document.getElementById(id)?.scrollIntoView({ block: 'start' });
  }, [id, isDrawn, hash, key]);
}
