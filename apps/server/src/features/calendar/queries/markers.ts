import type { PlacementShape, StandingMarkerShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

/** Blackouts and production days, of the client and of the agency, on the day of a placement; and whether the piece may not be out then. */
export async function standingOn(app: App, placement: Pick<PlacementShape, 'clientId' | 'on' | 'pieceId'>): Promise<StandingMarkerShape[]> {
  if (placement.on === null) return [];
  return app.read<StandingMarkerShape>(
    `select kind, name from markers where (client_id = $1 or client_id is null) and kind in ('blackout', 'production_day')
       and $2 between start_on and end_on
     union all select case when $2 < not_before_on then 'too_early' else 'too_late' end, (case when $2 < not_before_on then not_before_on else not_after_on end)::text
     from embargoes where piece_id = $3 and ($2 < not_before_on or $2 > not_after_on) order by 1, 2`,
    [placement.clientId, placement.on, placement.pieceId],
  );
}
