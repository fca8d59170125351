import { addDays, dayIn, dayInWords, getDay, ok } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { noteReminder, tellManagers } from '../../notices/index.js';

/** So many days before its day the managers are told, in time for a new one to be made. */
const AHEAD_DAYS = 14;
/** What was forgotten for longer is told of no more. */
const BEHIND_DAYS = 60;
const THING = 'kept_file';

interface Due {
  id: string;
  client_id: string;
  code: string;
  title: string;
  renew_by: string;
}

/** Tells managers, once for each day that a kept file is to be renewed by, what will be old within two weeks. @returns of how many files */
export async function remindOfRenewals(app: App): Promise<number> {
  const done = await app.write(async (tx, now) => {
    const [agency] = await rowsOf<{ zone: string }>(tx, 'select zone from agencies');
    if (!agency) return ok(0);
    const todayOn = dayIn(now, agency.zone);
    const due = await rowsOf<Due>(
      tx,
      `select k.id, k.client_id, c.code, k.title, k.renew_by::text from kept_files k join clients c on c.id = k.client_id and c.archived_at is null
       where k.archived_at is null and k.renew_by between $1 and $2
         and not exists (select 1 from reminders r where r.thing = $3 and r.thing_id = k.id and r.due_on = k.renew_by)
       order by c.code, k.renew_by, k.title for no key update of k skip locked`,
      [addDays(todayOn, -BEHIND_DAYS), addDays(todayOn, AHEAD_DAYS), THING],
    );
    for (const { id, client_id: clientId, code, title, renew_by: renewBy } of due) {
      await noteReminder(tx, { thing: THING, thingId: id, receiverId: clientId, dueOn: renewBy }, now);
      await tellManagers(app, tx, {
        clientId,
        heading: `To be renewed: ${title}`,
        text: `“${title}” is good up to ${dayInWords(getDay(renewBy))}. Bring a newer one to the library.`,
        path: `/production/library/files?client=${code}&shown=renew`,
        key: `renew:${id}`,
      });
    }
    return ok(due.length);
  });
  return done.ok ? done.value : 0;
}
