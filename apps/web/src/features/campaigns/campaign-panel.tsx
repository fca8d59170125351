import { useQuery } from '@tanstack/react-query';
import type { CampaignPageShape } from '@zesting/contract';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { campaignQuery } from '../../api/campaigns';
import { call, wordsOf } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { STAGE_WORDS } from '../../lib/words';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed, Loading } from '../../ui/page';
import { DangerTag, Tag } from '../../ui/tags';

interface PanelProps {
  readonly campaignId: string;
  readonly onEdit: () => void;
  readonly onClose: () => void;
}

/** A campaign with its pieces: what each is at, and when it goes out where. */
export function CampaignPanel({ campaignId, onEdit, onClose }: PanelProps) {
  const page = useQuery(campaignQuery(campaignId));
  const { clientOf } = useClients();
  const campaign = page.data?.campaign;
  const client = clientOf(campaign?.clientId ?? '');
  return (
    <Dialog open wide onClose={onClose} title={campaign?.name ?? 'Campaign'} {...(campaign?.aim ? { description: campaign.aim } : {})}>
      {page.isError ? (
        <Failed message={wordsOf(page.error)} onRetry={() => void page.refetch()} />
      ) : !page.data || !campaign ? (
        <Loading />
      ) : (
        <>
          <p className="mb-3">
            {client?.name} · {dayWords(campaign.fromOn)} to {dayWords(campaign.toOn)}
            {campaign.markers.length > 0 &&
              ` · ${campaign.markers.map(({ name, startOn }) => `${name} on ${dayWords(startOn)}`).join(', ')}`}
          </p>
          <Pieces page={page.data} />
          <div className="flex flex-wrap justify-end gap-2 mt-3">
            <PutAway page={page.data} onClose={onClose} />
            {!page.data.isArchived && <Button onClick={onEdit}>Change</Button>}
          </div>
        </>
      )}
    </Dialog>
  );
}

function Pieces({ page: { pieces, campaign } }: { page: CampaignPageShape }) {
  const { clientOf, to } = useClients();
  const channels = new Map((clientOf(campaign.clientId)?.channels ?? []).map(({ id, name }) => [id, name]));
  const take = useWrite((pieceId: string) => call(`/pieces/${pieceId}/campaign`, { method: 'PUT', body: { campaignId: null } }));
  if (pieces.length === 0) return <p className="text-muted">No piece belongs to it yet: say so on a piece’s page.</p>;
  return (
    <ul className="max-h-[50vh] overflow-y-auto" tabIndex={0} aria-label="Pieces of the campaign">
      {pieces.map((piece) => (
        <li key={piece.id} className="border-t border-line first:border-t-0 py-1.5 flex flex-wrap items-center gap-x-3 gap-y-1">
          <Link
            to={to(`/pieces/${piece.id}`)}
            className="font-medium flex-1 min-w-48 truncate no-underline hover:underline"
            title={piece.title}
          >
            {piece.title}
          </Link>
          <Tag>{STAGE_WORDS[piece.stage]}</Tag>
          <DangerTag danger={piece.danger === 'fine' ? null : piece.danger} />
          <span className="text-[13px] tabular basis-full sm:basis-auto">
            {piece.placements.length === 0
              ? 'on no channel'
              : piece.placements
                  .map(({ channelId, on }) => `${channels.get(channelId) ?? ''} ${on === null ? 'without a day' : dayWords(on)}`)
                  .join(', ')}
          </span>
          <Button
            look="quiet"
            aria-label={`Take ${piece.title} out of the campaign`}
            disabled={take.isPending}
            onClick={() => take.mutate(piece.id)}
          >
            Take out
          </Button>
        </li>
      ))}
    </ul>
  );
}

function PutAway({ page: { campaign, isArchived }, onClose }: { page: CampaignPageShape; onClose: () => void }) {
  const away = useWrite(() => call(`/campaigns/${campaign.id}`, { method: 'DELETE' }));
  const back = useWrite(() => call(`/campaigns/${campaign.id}/restore`, { method: 'POST' }));
  if (isArchived) return <Button onClick={() => back.mutate()}>Take it up again</Button>;
  return (
    <Button
      look="quiet"
      disabled={away.isPending}
      onClick={() =>
        away.mutate(undefined, {
          onSuccess: () => {
            toast(`“${campaign.name}” is put away; its pieces stay.`, { action: { label: 'Take it back', onClick: () => back.mutate() } });
            onClose();
          },
        })
      }
    >
      Put away
    </Button>
  );
}
