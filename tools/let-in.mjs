// npm run let-in -- <e-mail>: gives an active person a new password, for a sole lead who has lost theirs. Ends their sessions and waits.
import { randomInt } from 'node:crypto';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import pg from 'pg';
import { places, withDatabase } from './backup.mjs';
import { build } from './build.mjs';
import { Stop } from './database.mjs';
import { root, tell } from './prepare.mjs';

/** Letters and digits that are not mistaken for each other; twenty of them are about 98 bits. */
const SIGNS = 'abcdefghjkmnpqrstuvwxyz23456789';
const newPassword = () =>
  Array.from({ length: 4 }, () => Array.from({ length: 5 }, () => SIGNS[randomInt(SIGNS.length)]).join('')).join('-');

await tell(async () => {
  const [email] = process.argv.slice(2);
  if (!email) throw new Stop('Say who: npm run let-in -- lead@agency.example');
  build();
  const identity = (file) => import(pathToFileURL(join(root, 'apps/server/dist/features/identity', file)).href);
  const [{ hashPassword }, { forgiveAccount }] = await Promise.all([identity('passwords.js'), identity('sign-in-guard.js')]);
  const password = newPassword();
  const hash = await hashPassword(password);
  await withDatabase(places(), async (url) => {
    const client = new pg.Client(url);
    await client.connect().catch((error) => {
      throw new Stop(`the database cannot be reached: ${error.message}`);
    });
    try {
      await client.query('begin');
      const { rows } = await client.query(
        'update people set password_hash = $2 where lower(email) = lower($1) and active returning id, name',
        [email.trim(), hash],
      );
      if (rows.length !== 1) throw new Stop(`nobody who works here has the address ${email}`);
      await client.query("delete from sessions where sess ->> 'personId' = $1", [rows[0].id]);
      await forgiveAccount(client, email);
      await client.query('commit');
      console.log(`${rows[0].name} signs in with ${email.trim()} and ${password}`);
    } finally {
      await client.end();
    }
  });
});
