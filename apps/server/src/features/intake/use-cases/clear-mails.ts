import { ok } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { dropBytes } from '../../production/index.js';

/** So long a mail that is no request can still be looked at and taken; so many are cleared away at a time. */
const KEPT_DAYS = 90;
const BATCH = 200;

/** Clears away mail that was left, or that machines wrote, once nobody looks for it any more. What waits or was taken stays. @returns how many */
export async function clearMails(app: App): Promise<number> {
  let count = 0;
  for (;;) {
    const gone: string[] = [];
    await app.write(async (tx, now) => {
      const rows = await rowsOf<{ hash: string }>(
        tx,
        `with old as (select id from incoming_mails where state in ('left', 'automatic') and received_at < $1::timestamptz - make_interval(days => $2)
           limit $3 for update skip locked),
         gone as (delete from incoming_mails m using old where m.id = old.id returning m.hash)
         select hash from gone`,
        [now, KEPT_DAYS, BATCH],
      );
      gone.push(...rows.map(({ hash }) => hash));
      return ok(null);
    });
    if (gone.length === 0) return count;
    await dropBytes(app, gone);
    count += gone.length;
  }
}
