import { useQuery } from '@tanstack/react-query';
import type { ClientShape } from '@zesting/contract';
import { campaignsQuery } from '../api/campaigns';
import { call } from '../lib/api';
import { useWrite } from '../lib/queries';

interface CampaignFieldProps {
  readonly client: ClientShape;
  readonly pieceId: string;
  /** the campaign that it belongs to; null: none */
  readonly campaignId: string | null;
}

/** The campaign that a piece belongs to; kept as soon as it is chosen. Nothing where the client has none. */
export function CampaignField({ client, pieceId, campaignId }: CampaignFieldProps) {
  const { data } = useQuery(campaignsQuery(`clientId=${client.id}`));
  const save = useWrite((next: string | null) => call(`/pieces/${pieceId}/campaign`, { method: 'PUT', body: { campaignId: next } }));
  if (!data || (data.campaigns.length === 0 && campaignId === null)) return null;
  const chosen = save.isPending ? save.variables : campaignId;
  const all = data.campaigns.map(({ id, name }) => ({ id, name }));
  const away = data.archived.find(({ id }) => id === campaignId);
  return (
    <label className="inline-flex items-center gap-2 text-[13px]">
      <span className="text-muted">Campaign</span>
      <select
        className="field w-auto max-w-64 text-[13px]"
        value={chosen ?? ''}
        onChange={(event) => save.mutate(event.target.value || null)}
      >
        <option value="">none</option>
        {[...all, ...(away ? [away] : [])].map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
