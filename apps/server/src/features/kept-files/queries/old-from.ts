import type { App } from '../../../platform/app.js';

/** What a client's bytes are called by here. */
const keyOf = (clientId: string, hash: string): string => `${clientId} ${hash}`;

/**
 * From which day on files are old that are kept for a client, or were until something newer took their place.
 * @returns the last day on which a client's bytes were good; undefined where nobody said that they grow old
 */
export async function oldFrom(
  app: App,
  clientIds: readonly string[],
  hashes: readonly string[],
): Promise<(clientId: string, hash: string) => string | undefined> {
  if (hashes.length === 0) return () => undefined;
  const rows = await app.read<{ clientId: string; hash: string; goodTo: string }>(
    `select client_id as "clientId", hash, min(good_to)::text as "goodTo" from (
       select k.client_id, a.hash, k.renew_by as good_to from kept_files k join assets a on a.id = k.asset_id
         where k.client_id = any($1) and a.hash = any($2) and k.renew_by is not null
       union all select client_id, hash, on_day - 1 from renewed_files where client_id = any($1) and hash = any($2)
     ) of_clients group by client_id, hash`,
    [[...new Set(clientIds)], [...new Set(hashes)]],
  );
  const known = new Map(rows.map(({ clientId, hash, goodTo }) => [keyOf(clientId, hash), goodTo]));
  return (clientId, hash) => known.get(keyOf(clientId, hash));
}
