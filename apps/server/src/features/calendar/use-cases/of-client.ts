import { getDay, getTimeOfDay, toInstantAfterGap, type InstantText } from '@zesting/core';
import type { ClosureBody } from '@zesting/contract';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';

/** Makes a client's closures those given. Its open pieces are to be planned anew afterwards. */
export async function putClosures(tx: Tx, clientId: string, closures: readonly ClosureBody[]): Promise<void> {
  await tx.query('delete from client_closures where client_id = $1', [clientId]);
  for (const closure of closures) await addClosure(tx, clientId, closure);
}

/** Adds a closure and answers its id. */
export async function addClosure(tx: Tx, clientId: string, { startOn, endOn, name }: ClosureBody): Promise<string> {
  const [made] = await rowsOf<{ id: string }>(
    tx,
    'insert into client_closures (client_id, start_on, end_on, name) values ($1, $2, $3, $4) returning id',
    [clientId, startOn, endOn, name],
  );
  return made?.id ?? '';
}

/** A client's clock moved: what is not out keeps its local date and time, and gets the instant that they have there. */
export async function moveZone(tx: Tx, clientId: string, zone: string, now: InstantText): Promise<void> {
  const rows = await rowsOf<{ id: string; on_day: string | null; at_time: string | null }>(
    tx,
    'select id, on_day, at_time from placements where client_id = $1 and out_at is null',
    [clientId],
  );
  for (const { id, on_day: on, at_time: at } of rows)
    await tx.query('update placements set zone = $2, publish_at = $3, version = version + 1, updated_at = $4 where id = $1', [
      id,
      zone,
      on !== null && at !== null ? toInstantAfterGap(getDay(on), getTimeOfDay(at.slice(0, 5)), zone) : null,
      now,
    ]);
}
