import { isDeepStrictEqual } from 'node:util';
import type { ActivityPage, ActivityShape } from '@zesting/contract';
import type { App } from './app.js';
import type { Tx } from './database/transaction.js';
import type { InstantText } from '@zesting/core';
import { Activity } from './database/entities/activity.entity.js';
import { noteWritten } from './http/said-changes.js';

export interface ActivityEntry {
  readonly clientId: string | null;
  readonly thing: 'request' | 'piece' | 'packet' | 'client' | 'person' | 'route' | 'marker' | 'agency' | 'form' | 'idea' | 'duty';
  readonly thingId: string;
  /** past tense, e.g. `piece.created` */
  readonly verb: string;
  /** the name of who did it */
  readonly actor: string;
  readonly detail?: Readonly<Record<string, unknown>>;
  readonly at: InstantText;
}

/** Writes a line of the activity record, in the transaction of what it tells. */
export async function recordActivity(tx: Tx, entry: ActivityEntry): Promise<void> {
  const { identifiers } = await tx.insert(Activity, { ...entry, detail: (entry.detail ?? {}) as object }); // any JSON
  noteWritten(String(identifiers[0]?.['id']));
  await tx.query("select pg_notify('zesting_changes', '')"); // delivered at commit, once per transaction
}

/** Writes in the record what became of something that belongs to a client and has no record of its own. */
export const noteOfClient = (
  tx: Tx,
  { name: actor }: { readonly name: string },
  clientId: string,
  verb: string,
  detail: Readonly<Record<string, unknown>>,
  at: InstantText,
): Promise<void> => recordActivity(tx, { clientId, thing: 'client', thingId: clientId, verb, actor, detail, at });

/** What differs between two states, field by field, with the old and the new value. */
export function changesBetween<T extends object>(before: T, after: T): Record<string, { from: unknown; to: unknown }> {
  const keys = Object.keys(after) as (keyof T & string)[]; // the keys of a plain object
  return Object.fromEntries(
    keys
      .filter((key) => !isDeepStrictEqual(before[key], after[key]))
      .map((key) => [key, { from: before[key] ?? null, to: after[key] ?? null }]),
  );
}

const PAGE = 50;

/** Lines of the record, newest first: of all of a client's things, or of one thing. `before` is the last id of the page before. */
export async function activityPage(
  app: App,
  of: { readonly clientId: string } | { readonly thing: ActivityEntry['thing']; readonly thingId: string },
  before: string | undefined,
): Promise<ActivityPage> {
  const [where, values] = 'clientId' in of ? ['client_id = $1', [of.clientId]] : ['thing = $1 and thing_id = $2', [of.thing, of.thingId]];
  const next = /^\d{1,18}$/.test(before ?? '') ? `and id < ${before}` : '';
  const rows = await app.read<ActivityShape & { id: number }>(
    `select id, thing, thing_id as "thingId", verb, actor, at, detail from activities where ${where} ${next} order by id desc limit ${PAGE + 1}`,
    values,
  );
  return { items: rows.slice(0, PAGE), nextBefore: rows.length > PAGE ? String(rows[PAGE - 1]?.id) : null };
}
