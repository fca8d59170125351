import { checkWeekOn, isQuiet, ok, timeIn } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { noteReminder, quietHours, tellManagers } from '../../notices/index.js';
import { AGENCY_KEY, getDoer, loadCalendars } from '../../planning/index.js';
import { goingOutWithin } from '../queries/going-out.js';

/** So far ahead it is looked, as the page shows it. */
const DAYS_AHEAD = 7;

/** What stands in the book of reminders. */
const THING = 'week_check';

/**
 * Reminds the managers, once a week on the agency's day and outside its quiet hours, of what goes out in the coming seven days and is not ready or not
 * looked at. Clients of whom all was looked at are not named.
 * @returns how many clients their managers were told of
 */
export async function remindOfWeek(app: App): Promise<number> {
  const now = app.clock.now();
  const [agency] = await app.read<{ zone: string; weekday: number | null; quiet_from: string; quiet_to: string }>(
    'select zone, check_weekday as weekday, quiet_from, quiet_to from agencies',
  );
  if (!agency || agency.weekday === null || isQuiet(quietHours(agency), timeIn(now, agency.zone))) return 0;
  const { calendar, todayOn } = getDoer(await loadCalendars(app.manager, now, new Set()), AGENCY_KEY);
  if (checkWeekOn(calendar, agency.weekday, todayOn) !== todayOn) return 0;
  const clients = await app.read<{ id: string; code: string; name: string }>(
    `select id, code, name from clients c where archived_at is null
       and not exists (select 1 from reminders r where r.thing = $1 and r.thing_id = c.id and r.due_on = $2) order by code`,
    [THING, todayOn],
  );
  let told = 0;
  for (const client of clients) {
    const { count, unready, unchecked } = await goingOutWithin(app, [client.id], agency.zone, DAYS_AHEAD);
    const isTold = await app.write(async (tx) => {
      const isFirst = await noteReminder(tx, { thing: THING, thingId: client.id, receiverId: client.id, dueOn: todayOn }, now);
      if (!isFirst || unready + unchecked === 0) return ok(false); // another server was first, or there is nothing to say
      await tellManagers(app, tx, {
        clientId: client.id,
        heading: `The coming week of ${client.name}`,
        text: words(count, unready, unchecked),
        path: `/calendar/going-out?client=${client.code}`,
        key: `week-check:${client.id}`,
      });
      return ok(true);
    });
    if (isTold.ok && isTold.value) told += 1;
  }
  return told;
}

/** What is to be done before it goes out. */
function words(count: number, unready: number, unchecked: number): string {
  const parts = [
    unready === 0 ? '' : `${unready} ${unready === 1 ? 'is' : 'are'} not ready`,
    unchecked === 0 ? '' : `${unchecked} nobody has looked at`,
  ].filter((part) => part !== '');
  return `Of ${count} that ${count === 1 ? 'goes' : 'go'} out in the next seven days ${parts.join(', ')}.`;
}
