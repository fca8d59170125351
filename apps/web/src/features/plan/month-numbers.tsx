import type { PlanNumbersShape } from '@zesting/contract';
import { dayWords } from '../../lib/format';

/** How much the weeks and the month hold, beside what they should; nothing where no number is asked for. */
export function MonthNumbers({ numbers: { perWeek, perMonth, weeks, count } }: { numbers: PlanNumbersShape }) {
  if (perWeek === null && perMonth === null) return null;
  const met = weeks.filter((week) => perWeek !== null && week.count >= perWeek).length;
  return (
    <section aria-label="Numbers" className="card p-3 text-[13px]">
      <h2 className="text-base mb-1">Numbers</h2>
      {perMonth !== null && (
        <p>
          <span className={`font-medium tabular ${count >= perMonth ? 'text-pine' : 'text-rind'}`}>
            {count} of {perMonth}
          </span>{' '}
          pieces this month
        </p>
      )}
      {perWeek !== null && (
        <>
          <p>
            <span className={`font-medium tabular ${met === weeks.length ? 'text-pine' : 'text-rind'}`}>
              {met} of {weeks.length}
            </span>{' '}
            weeks have their {perWeek}
          </p>
          <ul className="mt-1 grid gap-0.5">
            {weeks.map((week) => (
              <li key={week.mondayOn} className="flex items-center gap-2">
                <span className="text-muted tabular w-24">{dayWords(week.mondayOn)}</span>
                <span className="flex-1 h-1.5 rounded-sm bg-sunk overflow-hidden" aria-hidden>
                  <span className="block h-full bg-pine" style={{ width: `${Math.min(100, (100 * week.count) / perWeek)}%` }} />
                </span>
                <span className="tabular w-6 text-right">{week.count}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
