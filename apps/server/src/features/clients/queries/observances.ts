import { addDays, dayIn, fitOfObservances } from '@zesting/core';
import type { ObservancesShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { observancesIn } from '../../../platform/time/observances.js';

interface OwnRow {
  readonly id: string;
  readonly isOfAll: boolean;
  readonly name: string;
  readonly month: number;
  readonly day: number;
  readonly subjects: string[];
}

/** Days of note over the next twelve months that a client may take: its region's, international ones, and those that were added; with what they have in common with its pillars and topics. */
export async function observancesFor(app: App, clientId: string): Promise<ObservancesShape> {
  const [client] = await app.read<{ region: string; zone: string; taken: string[]; texts: string[] }>(
    `select region, zone, observances as taken,
       array(select name from pillars where client_id = c.id and archived_at is null union all select name from topics where client_id = c.id and archived_at is null) as texts
     from clients c where id = $1`,
    [clientId],
  );
  if (!client) throw new Error('the client went away');
  const own = await app.read<OwnRow>(
    `select id, client_id is null as "isOfAll", name, month, day, subjects from yearly_days where client_id = $1 or client_id is null`,
    [clientId],
  );
  const fitOf = fitOfObservances(client.texts);
  const todayOn = dayIn(app.clock.now(), client.zone);
  const until = addDays(todayOn, 365);
  const all = observancesIn(client.region, own, Number(todayOn.slice(0, 4)), Number(until.slice(0, 4)));
  return {
    observances: all
      .filter(({ on }) => on >= todayOn && on < until)
      .map(({ on, name, subjects, from }) => {
        const added = own.find((day) => from === 'own' && day.name === name);
        return {
          on,
          name,
          subjects: [...subjects],
          from,
          ownId: added?.id ?? null,
          isOfAll: added?.isOfAll ?? false,
          isTaken: client.taken.includes(name),
          fit: fitOf({ name, subjects }),
        };
      }),
    pillars: client.texts.length > 0,
  };
}
