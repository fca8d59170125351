import type { PersonPageShape, RoundUpBody } from '@zesting/contract';
import { readTimeOfDay } from '@zesting/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { useTyped } from '../../ui/day-field';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { RHYTHM_WORDS } from '../../lib/words';
import { zoneWords } from '../../lib/format';

function DailyTime({ at, onDone }: { at: string; onDone: (time: string) => void }) {
  const [time, setTime] = useState(at);
  const typed = useTyped(time, readTimeOfDay, (next) => next !== '' && setTime(next));
  return (
    <input
      {...typed}
      type="text"
      autoComplete="off"
      aria-label="Time of the daily round-up"
      className="field tabular w-20"
      onBlur={() => {
        typed.onBlur();
        if (time !== at) onDone(time);
      }}
    />
  );
}

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
              <DailyTime at={at} onDone={(time) => put({ rhythm, at: time })} />
              in {zoneWords(person.zone)}
            </>
          )}
        </label>
      ))}
    </section>
  );
}
