import type { MixShape } from '@zesting/contract';
import { mixOf, type Day } from '@zesting/core';
import type { App } from '../../../platform/app.js';

/** How the pieces that a client has placed from `from` to `to` lie against the shares of its pillars. A piece counts once, on however many channels. */
export async function mixFor(app: App, clientId: string, from: Day, to: Day): Promise<MixShape> {
  const rows = await app.read<{ id: string | null; name: string; share: number; count: number }>(
    `with placed as (
       select distinct p.id, p.pillar_id from placements l join pieces p on p.id = l.piece_id
       where l.client_id = $1 and l.on_day between $2 and $3 and not l.cancelled and not p.shelved)
     select i.id, i.name, i.share, (select count(*)::int from placed where pillar_id = i.id) as count
     from pillars i where i.client_id = $1 and (i.archived_at is null or exists (select 1 from placed where pillar_id = i.id)) order by i.position, i.name`,
    [clientId, from, to],
  );
  const [bare] = await app.read<{ count: number }>(
    `select count(distinct p.id)::int as count from placements l join pieces p on p.id = l.piece_id
     where l.client_id = $1 and l.on_day between $2 and $3 and not l.cancelled and not p.shelved and p.pillar_id is null`,
    [clientId, from, to],
  );
  const without = bare?.count ?? 0;
  const all = [...rows, ...(without > 0 ? [{ id: null, name: 'Without a pillar', share: 0, count: without }] : [])];
  const mixed = mixOf(all);
  return {
    total: all.reduce((sum, row) => sum + row.count, 0),
    rows: mixed.map(({ id, share, count, actual, owed }, index) => ({
      pillarId: id,
      name: all[index]?.name ?? '',
      share,
      count,
      actual,
      owed,
    })),
  };
}
