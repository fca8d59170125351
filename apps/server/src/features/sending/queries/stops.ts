import { rowsOf, type Reader } from '../../../platform/database/rows.js';
import { STOPPED } from '../../going-out/index.js';

/** Whether nothing goes out by itself on a channel at present. */
export async function isStopped(tx: Reader, channelId: string): Promise<boolean> {
  const [row] = await rowsOf<{ stopped: string | null }>(
    tx,
    `select ${STOPPED} as stopped from channels h join clients c on c.id = h.client_id where h.id = $1`,
    [channelId],
  );
  return (row?.stopped ?? null) !== null;
}
