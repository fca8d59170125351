import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getDay, isMonth, nextMonth } from '@zesting/core';
import { ChevronLeft, ChevronRight, Plus } from 'lucide-react';
import { campaignQuery, campaignsQuery } from '../../api/campaigns';
import { call, wordsOf } from '../../lib/api';
import { count, monthWords } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { PlanNav } from '../../parts/plan-nav';
import { Button, IconButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { PutAway } from '../../ui/put-away';
import { axisOf, SPANS, type Span } from './axis';
import { CampaignDialog } from './campaign-dialog';
import { CampaignPanel } from './campaign-panel';
import { CampaignRows } from './campaign-rows';
import { MoveDialog } from './move-dialog';

const SPAN_WORDS: Record<Span, string> = { 1: 'Month', 3: 'Quarter', 12: 'Year' };

/** Campaigns as bars on a time axis, of one client or of all. */
export function CampaignsPage() {
  const { client, query, clients } = useClients();
  const { opened, open, close } = useOpened();
  const { search, put } = useSearch();
  const { todayOn } = useSession();
  const span = SPANS.find((one) => String(one) === search.get('span')) ?? 3;
  const asked = search.get('month') ?? '';
  const month = isMonth(asked) ? asked : todayOn.slice(0, 7);
  const axis = axisOf(month, span);
  const campaigns = useQuery({ ...campaignsQuery(`from=${axis.fromOn}&to=${axis.toOn}&${query}`), placeholderData: keepPreviousData });
  const restore = useWrite((id: string) => call(`/campaigns/${id}/restore`, { method: 'POST' }));
  if (campaigns.isError) return <Failed message={wordsOf(campaigns.error)} onRetry={() => void campaigns.refetch()} />;
  if (!campaigns.data) return <Loading />;
  const all = campaigns.data;
  const turn = (by: number) => put({ month: nextMonth(month, by * span) }, { replace: true });
  const [what = '', id = '', from = '', to = ''] = (opened ?? '').split(':');
  const shown = all.campaigns.find((campaign) => campaign.id === id);
  return (
    <>
      <PageHead nav={<PlanNav />} title="Campaigns" note="Pieces that serve one aim over one period.">
        {(client ?? clients[0]) && (
          <Button look="main" onClick={() => open('new')}>
            <Plus size={15} aria-hidden />
            Begin a campaign
          </Button>
        )}
      </PageHead>
      {all.campaigns.length + all.outside === 0 ? (
        <Empty title={client ? `${client.name} has no campaigns` : 'There are no campaigns'}>
          A campaign holds the pieces and dates of one aim together: it shows how far they are, and moves them along when it moves.
        </Empty>
      ) : (
        <>
          <div className="flex flex-wrap items-center gap-2 mb-3">
            <IconButton label="Earlier" onClick={() => turn(-1)}>
              <ChevronLeft size={16} aria-hidden />
            </IconButton>
            <h2 className="text-base min-w-44 text-center" aria-live="polite">
              {monthWords(month)}
              {span > 1 && ` – ${monthWords(nextMonth(month, span - 1))}`}
            </h2>
            <IconButton label="Later" onClick={() => turn(1)}>
              <ChevronRight size={16} aria-hidden />
            </IconButton>
            <Choice
              label="How much is seen"
              value={String(span)}
              options={SPANS.map((one) => [String(one), SPAN_WORDS[one]] as const)}
              onChange={(next) => put({ span: next === '3' ? null : next }, { replace: true })}
            />
            {all.outside > 0 && (
              <span className="text-rind text-[13px]">
                {count(all.outside, 'campaign')} {all.outside === 1 ? 'lies' : 'lie'} outside these months
              </span>
            )}
          </div>
          <CampaignRows
            campaigns={all.campaigns}
            axis={axis}
            span={span}
            todayOn={getDay(all.todayOn)}
            onOpen={(campaignId) => open(`campaign:${campaignId}`)}
            onDropped={(campaignId, period) => open(`move:${campaignId}:${period.fromOn}:${period.toOn}`)}
          />
        </>
      )}
      <div className="mt-3">
        <PutAway items={all.archived} title="Put away" action="take up again" onBack={(id) => restore.mutate(id)} />
      </div>
      {opened === 'new' && <CampaignDialog client={client ?? clients[0]} campaign={undefined} todayOn={all.todayOn} onClose={close} />}
      {what === 'edit' && id && <EditCampaign key={id} campaignId={id} todayOn={all.todayOn} onClose={close} />}
      {what === 'campaign' && id && <CampaignPanel key={id} campaignId={id} onEdit={() => open(`edit:${id}`)} onClose={close} />}
      {what === 'move' && shown && <MoveDialog key={opened} campaign={shown} fromOn={from} toOn={to} onClose={close} />}
    </>
  );
}

/** A campaign's dialog, wherever in time it lies. */
function EditCampaign({ campaignId, todayOn, onClose }: { campaignId: string; todayOn: string; onClose: () => void }) {
  const { data } = useQuery(campaignQuery(campaignId));
  return data ? <CampaignDialog client={undefined} campaign={data.campaign} todayOn={todayOn} onClose={onClose} /> : null;
}
