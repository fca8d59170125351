import { useQuery } from '@tanstack/react-query';
import type { PieceShape } from '@zesting/contract';
import { forecastQuery } from '../../api/production';
import { count } from '../../lib/format';
import { chanceWords, daysWords, firstUpper } from '../../lib/forecast-words';

/** How likely the piece is to make its day, and what that goes by; nothing where too little is known. */
export function ForecastLine({ piece }: { piece: PieceShape }) {
  const { data, isLoading } = useQuery({ ...forecastQuery(piece.id), enabled: piece.steps.some(({ finishedOn }) => finishedOn === null) });
  if (isLoading) return <div aria-hidden className="mt-1 min-h-6" />; // what stands below is not to move under somebody’s press
  if (!data || data.chance === null) return null;
  const least = Math.min(...data.steps.map(({ all }) => all));
  return (
    <details className="mt-1 text-[13px]">
      <summary className="min-h-6">
        <span className="font-medium">{firstUpper(chanceWords(data.chance))}</span> of making it, by how long such steps took
      </summary>
      <ul className="mt-1 grid gap-1">
        {data.steps.map((step) => (
          <li key={step.stepId}>
            <span className="font-medium">{step.title}</span>: {daysWords(step.usualDays, step.mostDays)}.{' '}
            <span className="text-muted">
              {count(step.all, 'case')}
              {step.own > 0 && `, ${step.own} of this client`}
            </span>
          </li>
        ))}
      </ul>
      <p className="text-muted mt-1">
        Cases of the last 400 days, {least} at least. Work begins when it is predicted to; how long each takes is by chance, and what is
        side by side is taken as if the one had nothing to do with the other.
      </p>
    </details>
  );
}
