import { getDay, getTimeOfDay, toInstantAfterGap, type InstantText } from '@zesting/core';
import type { ClosureBody } from '@zesting/contract';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { ClientClosure } from '../entities/client-closure.entity.js';
import { Placement } from '../entities/placement.entity.js';

/** Makes a client's closures those given. Its open pieces are to be planned anew afterwards. */
export async function putClosures(tx: Tx, clientId: string, closures: readonly ClosureBody[]): Promise<void> {
  await tx.delete(ClientClosure, { clientId });
  for (const closure of closures) await addClosure(tx, clientId, closure);
}

/** Adds a closure and answers its id. */
export const addClosure = (tx: Tx, clientId: string, { startOn, endOn, name }: ClosureBody): Promise<string> =>
  insertRow(tx, ClientClosure, { clientId, startOn, endOn, name });

/** A client's clock moved: what is not out nor on its way keeps its local date and time, and gets the instant that they have there. */
export async function moveZone(tx: Tx, clientId: string, zone: string, now: InstantText): Promise<void> {
  const rows = await rowsOf<{ id: string; on_day: string | null; at_time: string | null }>(
    tx,
    `select id, on_day, at_time from placements l where client_id = $1 and out_at is null
       and not exists (select 1 from sendings s where s.placement_id = l.id and s.settled_at is null)`,
    [clientId],
  );
  for (const { id, on_day: on, at_time: at } of rows)
    await tx.update(Placement, id, {
      zone,
      publishAt: on !== null && at !== null ? toInstantAfterGap(getDay(on), getTimeOfDay(at.slice(0, 5)), zone) : null,
      version: () => 'version + 1',
      updatedAt: now,
    });
}
