import { addDays, getDay, mondayOf, type Day } from '@zesting/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { dayWords } from '../../lib/format';
import { useSession } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { Button, IconButton } from '../../ui/button';

/** The days that are seen, and the way to earlier and later ones: half of what is seen at a time. The address holds the first. */
export function DaysTurn({ fromOn, toOn, weeks }: { fromOn: Day; toOn: Day; weeks: number }) {
  const { put } = useSearch();
  const { todayOn } = useSession();
  const by = Math.max(1, Math.floor(weeks / 2)) * 7;
  const turn = (on: Day | null) => put({ from: on }, { replace: true });
  return (
    <div className="flex items-center">
      <IconButton label="Earlier" onClick={() => turn(addDays(fromOn, -by))}>
        <ChevronLeft size={16} aria-hidden />
      </IconButton>
      <span className="tabular whitespace-nowrap text-[13px]" aria-live="polite">
        {dayWords(fromOn)} – {dayWords(toOn)}
      </span>
      <IconButton label="Later" onClick={() => turn(addDays(fromOn, by))}>
        <ChevronRight size={16} aria-hidden />
      </IconButton>
      {fromOn !== mondayOf(getDay(todayOn)) && (
        <Button look="quiet" onClick={() => turn(null)}>
          This week
        </Button>
      )}
    </div>
  );
}
