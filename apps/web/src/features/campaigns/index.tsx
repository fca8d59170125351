import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const CampaignsPage = lazyPage(() => import('./campaigns-page'), 'CampaignsPage');

export const feature: WebFeature = {
  name: 'campaigns',
  routes: [{ path: 'plan/campaigns', element: <CampaignsPage /> }],
  actions: (session) => (manages(session) ? [go('Campaigns', '/plan/campaigns', 'one aim over one period')] : []),
  verbs: {
    'campaign.added': 'began a campaign',
    'campaign.changed': 'changed a campaign',
    'campaign.moved': 'moved a campaign',
    'campaign.archived': 'put a campaign away',
    'campaign.restored': 'took a campaign up again',
    'campaign.piece_set': 'said which campaign it belongs to',
  },
};
