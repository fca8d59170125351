import type { Tx } from './database/transaction.js';
import type { InstantText } from '@zesting/core';

export interface ActivityEntry {
  readonly clientId: string | null;
  readonly thing: 'request' | 'piece' | 'packet' | 'client';
  readonly thingId: string;
  /** past tense, e.g. `piece.created` */
  readonly verb: string;
  /** the name of who did it */
  readonly actor: string;
  readonly detail?: Readonly<Record<string, unknown>>;
  readonly at: InstantText;
}

/** Writes a line of the activity record, in the transaction of what it tells. */
export async function record(tx: Tx, entry: ActivityEntry): Promise<void> {
  await tx.query('insert into activities (client_id, thing, thing_id, verb, actor, detail, at) values ($1, $2, $3, $4, $5, $6, $7)', [
    entry.clientId,
    entry.thing,
    entry.thingId,
    entry.verb,
    entry.actor,
    JSON.stringify(entry.detail ?? {}),
    entry.at,
  ]);
}
