import { useEffect, useState } from 'react';
import { Button } from './button';

const TICK_MS = 500;

interface SeekingProps {
  readonly words: string;
  /** so many seconds it may take */
  readonly most: number;
  readonly onStop: () => void;
}

/** How long a search has gone on since this is on the screen, and the way out of it. */
export function Seeking({ words, most, onStop }: SeekingProps) {
  const [since] = useState(() => performance.now());
  const [now, setNow] = useState(since);
  useEffect(() => {
    const timer = setInterval(() => setNow(performance.now()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  return (
    <span className="inline-flex items-center gap-2">
      <span role="status" className="text-muted tabular">
        {words}, {Math.floor((now - since) / 1000)} s of {most}
      </span>
      <Button onClick={onStop}>Stop</Button>
    </span>
  );
}
