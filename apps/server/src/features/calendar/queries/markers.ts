import type { PlacementShape, StandingMarkerShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

/** Blackouts and production days, of the client and of the agency, on the day of a placement. */
export async function standingOn(app: App, placement: Pick<PlacementShape, 'clientId' | 'on'>): Promise<StandingMarkerShape[]> {
  if (placement.on === null) return [];
  return app.read<StandingMarkerShape>(
    `select kind, name from markers where (client_id = $1 or client_id is null) and kind in ('blackout', 'production_day')
       and $2 between start_on and end_on order by kind, name`,
    [placement.clientId, placement.on],
  );
}
