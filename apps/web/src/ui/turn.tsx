import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Button } from './button';

interface TurnProps {
  /** what the two ways are called, and the way back to now */
  readonly before: string;
  readonly home: string;
  readonly after: string;
  readonly onBefore: () => void;
  readonly onHome: () => void;
  readonly onAfter: () => void;
}

/** Turns a page that shows a period to the one before it or after it, and back to now. */
export function Turn({ before, home, after, onBefore, onHome, onAfter }: TurnProps) {
  return (
    <div className="flex gap-1.5 no-print">
      <Button onClick={onBefore} aria-label={before}>
        <ChevronLeft size={16} aria-hidden />
      </Button>
      <Button onClick={onHome}>{home}</Button>
      <Button onClick={onAfter} aria-label={after}>
        <ChevronRight size={16} aria-hidden />
      </Button>
    </div>
  );
}
