import { rowsOf, type Tx } from '../../../platform/database/transaction.js';

/** Whether something of a client may be meant for a pillar: one of the client's, or none; what was chosen before may stay, also where it is offered no more. */
export async function isPillar(tx: Tx, clientId: string, pillarId: string | null, before: string | null): Promise<boolean> {
  if (pillarId === null || pillarId === before) return true;
  const pillars = await rowsOf(tx, 'select 1 from pillars where id = $1 and client_id = $2 and archived_at is null', [pillarId, clientId]);
  return pillars.length > 0;
}
