/** Live updates in the browser: one stream for all of its windows, held by one of them and passed on to the rest. */

export type LiveEvent =
  /** `lines`: of the record; null where more may have changed than they tell. `dates`: days were reckoned anew */
  | { readonly kind: 'changed'; readonly lines: readonly string[] | null; readonly dates: boolean }
  | { readonly kind: 'presence'; readonly pieceId: string };

const LOCK = 'zesting-live';
const CHANNEL = 'zesting-live';
const RETRY_MS = 3000;

/**
 * Listens until the returned function is called. `changed` comes also after a connection was lost, since something may have been
 * missed meanwhile.
 */
export function listenLive(onEvent: (event: LiveEvent) => void): () => void {
  const ended = new AbortController();
  const channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = ({ data }: MessageEvent<LiveEvent>) => onEvent(data);
  const pass = (event: LiveEvent) => {
    channel.postMessage(event); // reaches the other windows, never this one
    onEvent(event);
  };
  // whoever gets the lock holds the stream; it goes to another window when this one is closed
  navigator.locks.request(LOCK, { signal: ended.signal }, () => holdStream(pass, ended.signal)).catch(() => undefined); // ended before its turn came
  return () => {
    ended.abort();
    channel.close();
  };
}

/** Keeps the stream open until the signal. */
function holdStream(pass: (event: LiveEvent) => void, signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    let source: EventSource | undefined;
    let opened = 0;
    const open = () => {
      source = new EventSource('/api/live');
      source.onopen = () => {
        opened += 1;
        if (opened > 1) pass({ kind: 'changed', lines: null, dates: true });
      };
      source.addEventListener('changed', ({ data }: MessageEvent<string>) => {
        const words = data.split(' ');
        const lines = words.filter((word) => word !== 'dates');
        pass({ kind: 'changed', lines: lines.includes('more') ? null : lines, dates: lines.length < words.length });
      });
      source.addEventListener('presence', ({ data }: MessageEvent<string>) => pass({ kind: 'presence', pieceId: data }));
      source.onerror = () => {
        // the browser tries again by itself, but not after a refusal: then access may have ended, which asking anew shows
        if (source?.readyState !== EventSource.CLOSED || signal.aborted) return;
        pass({ kind: 'changed', lines: null, dates: true });
        setTimeout(() => !signal.aborted && open(), RETRY_MS);
      };
    };
    open();
    signal.addEventListener('abort', () => {
      source?.close();
      resolve();
    });
  });
}
