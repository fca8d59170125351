import type { FoundShape } from '@zesting/contract';
import { holdsEvery, type FindSource } from '../../../platform/feature.js';

/** Campaigns by their names, those that are on before those that were put away. */
export const findCampaigns: FindSource = {
  order: 5,
  by: 'managers',
  find: (app, { patterns, clientIds, limit }) =>
    app.read<FoundShape>(
      `select 'campaign' as kind, id, name as title, case when archived_at is null then 'campaign' else 'campaign, put away' end as note,
         '/plan/campaigns?open=campaign:' || id as path, client_id as "clientId"
       from campaigns where client_id = any($1) and (${holdsEvery('plain_letters(name)', patterns, 2)})
       order by archived_at is not null, from_on desc, id limit ${limit}`,
      [clientIds, ...patterns],
    ),
};
