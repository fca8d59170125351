import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { PresenceShape } from '@zesting/contract';
import { useEffect, useState } from 'react';
import { sessionQuery } from '../api/agency';
import { presenceKeys, presenceQuery } from '../api/calendar';
import { listenLive } from './live';
import { isKnownAlready } from './own-changes';
import { useTouched } from './queries';

/** Changes that come close together are asked for once. */
const GATHER_MS = 60;
/** A window says so often that it still has a piece open. */
const BEAT_MS = 20_000;

/** Keeps what is on the screen up to date with what others do. Used once, by the frame. */
export function useLive(): void {
  const queries = useQueryClient();
  const touched = useTouched();
  useEffect(() => {
    let waiting: ReturnType<typeof setTimeout> | undefined;
    let [told, isDated]: [(readonly string[] | null)[], boolean] = [[], false];
    let isOver = false;
    const stop = listenLive((event) => {
      if (event.kind === 'presence') return void queries.invalidateQueries({ queryKey: presenceKeys.on(event.pieceId) });
      told.push(event.lines);
      isDated ||= event.dates;
      waiting ??= setTimeout(async () => {
        waiting = undefined;
        const lines = told.every((some) => some !== null) ? told.flat() : null;
        const dated = isDated;
        [told, isDated] = [[], false];
        const isKnown = await isKnownAlready(lines);
        if (isOver) return;
        if (!isKnown) touched();
        else if (dated) touched('dates');
        void queries.invalidateQueries({ queryKey: sessionQuery.queryKey }); // the own access may have changed
      }, GATHER_MS);
    });
    return () => {
      isOver = true;
      clearTimeout(waiting);
      stop();
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `touched` is made anew by every drawing and does the same
  }, [queries]);
}

/** Who else has a piece open, told to them as well. */
export function usePresence(pieceId: string): PresenceShape['others'] {
  const [tabId] = useState(() => crypto.randomUUID());
  const { data } = useQuery({ ...presenceQuery(pieceId, tabId), refetchInterval: BEAT_MS, refetchIntervalInBackground: true });
  useEffect(() => {
    const leave = () =>
      void fetch(`/api/pieces/${pieceId}/presence/${tabId}`, { method: 'DELETE', keepalive: true }).catch(() => undefined);
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [pieceId, tabId]);
  return data?.others ?? [];
}
