import { SHARED_PART } from '@zesting/core';
import type { MaterialOfPieceShape, MaterialShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { deliveriesOf } from './deliveries.js';
import { FILE } from './file.js';

/** What makers of a piece work from, the newest first within each sort, and what its client was asked to bring. */
export async function materialOf(app: App, pieceId: string): Promise<MaterialOfPieceShape> {
  const material = await app.read<MaterialShape>(
    `select m.id, m.sort, m.label, ${FILE}, m.url, m.text, coalesce(x.name, d.name) as by, m.contact_id is not null as "isFromClient", m.added_at as at, m.step_id as "stepId",
       a.id is not null and coalesce(p.content -> $2 -> 'media' @> jsonb_build_array(jsonb_build_object('assetId', a.id::text)), false) as "isInContent"
     from materials m join pieces p on p.id = m.piece_id left join assets a on a.id = m.asset_id left join people d on d.id = m.person_id left join contacts x on x.id = m.contact_id
     where m.piece_id = $1 and m.removed_at is null order by m.added_at desc, m.id`,
    [pieceId, SHARED_PART],
  );
  return { material, deliveries: await deliveriesOf(app, pieceId) };
}
