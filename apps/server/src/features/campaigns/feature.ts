import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { CampaignMarker } from './entities/campaign-marker.entity.js';
import { CampaignPiece } from './entities/campaign-piece.entity.js';
import { Campaign } from './entities/campaign.entity.js';
import { CampaignsModule } from './index.js';
import { findCampaigns } from './queries/find-campaigns.js';

const policies = {
  'campaign.read': { roles: MANAGERS },
  'campaign.edit': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

const owners = {
  campaign: 'select client_id, null::uuid as piece_id, null::uuid as request_id from campaigns where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** Pieces that serve one aim over one period. */
export const feature: Feature = {
  name: 'campaigns',
  module: CampaignsModule,
  entities: [Campaign, CampaignPiece, CampaignMarker],
  policies,
  owners,
  finds: [findCampaigns],
};
