import type { PersonPageShape, RoundUpBody } from '@zesting/contract';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { RHYTHM_WORDS } from '../../lib/words';
import { zoneWords } from '../../lib/format';

/** How often messages come. */
export function RoundUpSection({ person }: { person: PersonPageShape }) {
  const save = useWrite((body: RoundUpBody) => call(`/people/${person.id}/round-up`, { method: 'PUT', body }));
  const put = (body: RoundUpBody) => save.mutate(body, { onSuccess: () => toast('Saved') });
  const { rhythm, at } = person.roundUp;
  return (
    <section aria-label="Round-ups" className="card p-4">
      <h2 className="text-lg mb-1">Round-ups</h2>
      <p className="text-muted mb-2">
        Each holds links, and your outstanding work in the order to do it. What was undone before it goes out is left out.
      </p>
      {Object.entries(RHYTHM_WORDS).map(([key, words]) => (
        <label key={key} className="flex items-center gap-2 min-h-8">
          <input
            type="radio"
            name="round-up"
            className="size-4 accent-pine"
            checked={rhythm === key}
            onChange={() => put({ rhythm: key as RoundUpBody['rhythm'], at })}
          />
          {words}
          {key === 'daily' && rhythm === 'daily' && (
            <>
              {' '}
              at
              <input
                type="time"
                aria-label="Time of the daily round-up"
                className="field w-28"
                defaultValue={at}
                onBlur={(event) => event.target.value && event.target.value !== at && put({ rhythm, at: event.target.value })}
              />
              in {zoneWords(person.zone)}
            </>
          )}
        </label>
      ))}
    </section>
  );
}
