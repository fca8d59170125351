import { createHash } from 'node:crypto';
import { isIP } from 'node:net';
import { fail, ok, type InstantText, type Result } from '@zesting/core';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { SignInFailure } from './entities/sign-in-failure.entity.js';

/**
 * How many tries in a row may fail before the next must wait, and for how many hours a failure counts that no other follows. One account from
 * one address: who forgot. One address: who tries many accounts. One account: who tries it from many addresses; a hundred in a row at most is
 * what NIST SP 800-63B (5.2.2) asks for (from memory), and more would let anybody lock anybody out.
 */
const LIMITS = { account: [100, 24], address: [30, 1], pair: [5, 24] } as const;
type Kind = keyof typeof LIMITS;
/** Always in this order, so that two who lock the same rows wait for each other in one direction. */
const KINDS = ['account', 'address', 'pair'] as const satisfies readonly Kind[];

const LONGEST_MINUTES = 60;

/** How long to wait after so many failures in a row, in minutes: 0, then 1, 2, 4 and so on up to an hour. */
export function lockMinutes(failures: number, free: number): number {
  return failures < free ? 0 : Math.min(LONGEST_MINUTES, 2 ** (failures - free));
}

/** What stands for an account: a digest, since anything can be typed for one, passwords too. */
export const accountKey = (email: string): string => createHash('sha256').update(email.trim().toLowerCase()).digest('hex');

/** The keys of a try. Of an IPv6 address the first 64 bits count: that much one subscriber has. */
async function keysOf(tx: Tx, email: string, address: string): Promise<Record<Kind, string>> {
  const plain = address.replace(/^::ffff:(?=\d+\.)/i, '').replace(/%.*$/, '');
  const account = accountKey(email);
  const [row] = await rowsOf<{ network: string }>(
    tx,
    'select case family($1::inet) when 6 then host(network(set_masklen($1::inet, 64))) else host($1::inet) end as network',
    [isIP(plain) ? plain : '0.0.0.0'], // what a proxy calls `unknown`
  );
  const network = row?.network ?? '';
  return { account, address: network, pair: `${account} ${network}` };
}

/** Too many tries failed; so many minutes are left to wait, rounded up. */
type Locked = { code: 'access.locked'; detail: { minutes: number } };

/**
 * Counts a try to sign in before it is known how it ends, so that many at once do not get by together.
 * @param address the caller's
 * @returns `access.locked` while too many failed in a row: such a try is not counted
 */
export async function countTry(tx: Tx, now: InstantText, email: string, address: string): Promise<Result<null, Locked>> {
  const keys = await keysOf(tx, email, address);
  await tx.query("delete from sign_in_failures where last_at < $1::timestamptz - interval '1 day'", [now]);
  for (const kind of KINDS) {
    const [free, hours] = LIMITS[kind];
    const [row] = await rowsOf<{ failures: number; minutes: number | null }>(
      tx,
      `insert into sign_in_failures as f (kind, who, failures, last_at) values ($1, $2, 0, $3)
       on conflict (kind, who) do update
         set failures = case when f.last_at < $3::timestamptz - make_interval(hours => $4) then 0 else f.failures end
       returning failures, ceil(extract(epoch from f.locked_until - $3::timestamptz) / 60) as minutes`,
      [kind, keys[kind], now, hours],
    );
    if (row?.minutes && row.minutes > 0) return fail({ code: 'access.locked', detail: { minutes: row.minutes } });
    const failures = (row?.failures ?? 0) + 1;
    const minutes = lockMinutes(failures, free);
    await tx.query(
      `update sign_in_failures set failures = $3, last_at = $4,
         locked_until = case when $5::int > 0 then $4::timestamptz + make_interval(mins => $5) end where kind = $1 and who = $2`,
      [kind, keys[kind], failures, now, minutes],
    );
  }
  return ok(null);
}

/** Lets an account try again from everywhere: whoever it belongs to has shown it in another way. */
export const forgiveAccount = (tx: Tx, email: string): Promise<unknown> =>
  tx.query("delete from sign_in_failures where kind in ('account', 'pair') and who like $1 || '%'", [accountKey(email)]);

/** Takes back what `countTry` counted, since the password fitted; what others from the same address did wrong stays. */
export async function forgive(tx: Tx, email: string, address: string): Promise<void> {
  const keys = await keysOf(tx, email, address);
  await tx.delete(SignInFailure, { kind: 'account', who: keys.account });
  await tx.query(
    "update sign_in_failures set failures = failures - 1, locked_until = null where kind = 'address' and who = $1 and failures > 0",
    [keys.address],
  );
  await tx.delete(SignInFailure, { kind: 'pair', who: keys.pair });
}
