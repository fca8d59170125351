import { ok, type InstantText } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { Problem } from '../../../platform/http/problem.js';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';
import { tellManagers } from '../../notices/index.js';

/** What may come through one form's link in an hour: far more than a busy client sends, far less than would fill a disk. */
export const FORM_LIMITS = { requests: 60, files: 300, bytes: 10 * 1024 ** 3 } as const;
/** How many receipts go to one address in an hour: whoever types somebody else's cannot flood it. */
export const RECEIPTS_AN_HOUR = 5;

interface Share {
  readonly requests?: number;
  readonly files?: number;
  readonly bytes?: number;
}

/**
 * Takes a share of what may come through a form's link in this hour.
 * @returns false when there is no room for it any more: see `tellTooMuch`
 */
export async function takeShare(
  reader: Reader,
  linkId: string,
  now: InstantText,
  { requests = 0, files = 0, bytes = 0 }: Share,
): Promise<boolean> {
  const taken = await rowsOf(
    reader,
    `insert into form_uses as u (link_id, hour, requests, files, bytes)
     select $1::uuid, $2::timestamptz, $3::int, $4::int, $5::bigint where $3::int <= $6::int and $4::int <= $7::int and $5::bigint <= $8::bigint
     on conflict (link_id, hour) do update set requests = u.requests + excluded.requests, files = u.files + excluded.files, bytes = u.bytes + excluded.bytes
       where u.requests + excluded.requests <= $6::int and u.files + excluded.files <= $7::int and u.bytes + excluded.bytes <= $8::bigint
     returning 1`,
    [linkId, hourOf(now), requests, files, bytes, FORM_LIMITS.requests, FORM_LIMITS.files, FORM_LIMITS.bytes],
  );
  return taken.length > 0;
}

/** Takes a share of what may come through a link in this hour, or refuses: `ask.too_much`, and the managers are told. */
export async function needShare(app: App, linkId: string, share: Share): Promise<void> {
  if (await takeShare(app.manager, linkId, app.clock.now(), share)) return;
  await tellTooMuch(app, linkId);
  throw Problem.of('ask.too_much');
}

const hourOf = (now: InstantText): string => `${now.slice(0, 13)}:00:00Z`;

/** Tells the client's managers that more came through a form than is taken, once an hour. */
export async function tellTooMuch(app: App, linkId: string): Promise<void> {
  await app.write(async (tx, now) => {
    const [first] = (await tx.query(
      `with told as (insert into form_uses as u (link_id, hour, told) values ($1, $2, true) on conflict (link_id, hour) do update set told = true where not u.told returning link_id)
       select f.title, l.client_id, c.name from told join form_links l on l.id = told.link_id join intake_forms f on f.id = l.form_id join clients c on c.id = l.client_id`,
      [linkId, hourOf(now)],
    )) as { title: string; client_id: string; name: string }[]; // as asked
    if (first)
      await tellManagers(app, tx, {
        clientId: first.client_id,
        heading: `Too much comes through a form: ${first.title}`,
        text: `More came through “${first.title}” of ${first.name} within this hour than is taken. If its link is in wrong hands, renew it.`,
        path: `/clients/${first.client_id}?part=links`,
        key: `form:${linkId}`,
      });
    return ok(null);
  });
}
