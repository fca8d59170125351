import { useSuspenseQuery } from '@tanstack/react-query';
import type { ClientPageShape } from '@zesting/contract';
import { useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { clientPageQuery } from '../../api/clients';
import { call } from '../../lib/api';
import { useSearch } from '../../lib/use-search';
import { useSession, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { zoneClock } from '../../ui/setup-fields';
import { Tabs } from '../../ui/tabs';
import { ClientCode, Tag } from '../../ui/tags';
import { ActivitySection } from './activity-section';
import { AllowanceSection } from './allowance-section';
import { BasicsSection, DaysSection } from './basics-section';
import { BrandSection } from './brand-section';
import { ChannelsSection } from './channels-section';
import { ContactsSection } from './contacts-section';
import { FeeSection } from './fee-section';
import { FollowUpsSection } from './follow-ups-section';
import { LinksSection } from './links-section';
import { PillarsSection } from './pillars-section';
import { SendingSection } from './sending-section';
import { SpreadsSection } from './spreads/spreads-section';
import { PhrasesSection } from './phrases-section';
import { TagSetsSection } from './tag-sets-section';
import { TeamSection } from './team-section';
import { PolicySection } from './policy-section';

/** A client's page: one tab per subject, each saved by itself. */
export function ClientPage() {
  const { clientId = '' } = useParams();
  const { search, put } = useSearch();
  const { data: client } = useSuspenseQuery(clientPageQuery(clientId));
  const tabs = [
    { id: 'basics', title: 'Basics', content: <BasicsSection client={client} /> },
    { id: 'days', title: 'Days', content: <DaysSection client={client} /> },
    { id: 'contacts', title: 'Contacts', content: <ContactsSection client={client} /> },
    { id: 'team', title: 'Team', content: <TeamSection clientId={client.id} /> },
    { id: 'sign-off', title: 'Sign-off', content: <PolicySection client={client} /> },
    {
      id: 'channels',
      title: 'Channels',
      content: (
        <>
          <ChannelsSection client={client} />
          <SendingSection client={client} />
          <FollowUpsSection client={client} />
        </>
      ),
    },
    {
      id: 'allowance',
      title: 'Allowance',
      content: (
        <div className="grid gap-4">
          <AllowanceSection client={client} />
          <FeeSection client={client} />
        </div>
      ),
    },
    { id: 'pillars', title: 'Pillars', content: <PillarsSection client={client} /> },
    { id: 'tags', title: 'Tag sets', content: <TagSetsSection client={client} /> },
    { id: 'phrases', title: 'Phrases', content: <PhrasesSection client={client} /> },
    { id: 'spreads', title: 'Spreads', content: <SpreadsSection client={client} /> },
    { id: 'brand', title: 'Brand sheet', content: <BrandSection client={client} /> },
    { id: 'links', title: 'Links', content: <LinksSection clientId={client.id} /> },
    { id: 'activity', title: 'Activity', content: <ActivitySection clientId={client.id} /> },
  ];
  const part = tabs.find((tab) => tab.id === search.get('part'))?.id ?? 'basics';
  const choose = (id: string) => put({ part: id }, { replace: true });
  return (
    <div className="max-w-6xl mx-auto">
      <header className="flex flex-wrap items-center gap-3 mb-4">
        <ClientCode code={client.code} colour={client.colour} />
        <h1 className="text-2xl leading-tight">{client.name}</h1>
        {client.archivedAt && <Tag tone="rind">Archived</Tag>}
        <p className="text-muted">{zoneClock(client.zone)}</p>
        <ArchiveButton client={client} />
      </header>
      <Tabs label={client.name} tabs={tabs} value={part} onChange={choose} />
    </div>
  );
}

function ArchiveButton({ client }: { client: ClientPageShape }) {
  const { role } = useSession();
  const navigate = useNavigate();
  const archive = useWrite((archived: boolean) => call(`/clients/${client.id}/archive`, { method: 'POST', body: { archived } }));
  if (role !== 'lead') return null;
  const go = (archived: boolean) =>
    archive.mutate(archived, {
      onSuccess: () => {
        if (!archived) return;
        toast(`${client.name} is archived. Its links are closed and its pieces are off every list.`, {
          action: { label: 'Restore', onClick: () => archive.mutate(false) },
        });
        void navigate('/clients');
      },
    });
  return (
    <Button className="ml-auto" disabled={archive.isPending} onClick={() => go(client.archivedAt === null)}>
      {client.archivedAt ? 'Restore' : 'Archive this client'}
    </Button>
  );
}
