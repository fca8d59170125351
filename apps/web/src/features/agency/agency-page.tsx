import { useSuspenseQuery } from '@tanstack/react-query';
import { agencyQuery } from '../../api/agency';
import { useSession } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { PageHead } from '../../ui/page';
import { Tabs } from '../../ui/tabs';
import { DemoSection } from './demo-section';
import { IdeasSection } from './ideas-section';
import { ListsSection } from './lists-section';
import { LookSection } from './look-section';
import { MessagesSection } from './messages-section';
import { NewClientsSection } from './new-clients-section';

import { WorkSection } from './work-section';

/** What the agency sets for all of its work: one tab per subject, each saved by itself. */
export function AgencyPage() {
  const { role } = useSession();
  const { search, put } = useSearch();
  const { data: agency } = useSuspenseQuery(agencyQuery);
  const tabs = [
    { id: 'work', title: 'Work', content: <WorkSection agency={agency} /> },
    { id: 'look', title: 'As clients see you', content: <LookSection agency={agency} /> },
    { id: 'messages', title: 'Messages', content: <MessagesSection agency={agency} /> },
    { id: 'lists', title: 'Formats and skills', content: <ListsSection agency={agency} /> },
    { id: 'ideas', title: 'Ideas', content: <IdeasSection agency={agency} /> },
    { id: 'new-clients', title: 'New clients', content: <NewClientsSection agency={agency} /> },
    ...(agency.isDemo && role === 'lead' ? [{ id: 'demo', title: 'Leave the demo', content: <DemoSection agency={agency} /> }] : []),
  ];
  const part = tabs.find((tab) => tab.id === search.get('part'))?.id ?? 'work';
  const choose = (id: string) => put({ part: id }, { replace: true });
  return (
    <div className="max-w-5xl mx-auto">
      <PageHead title={agency.name} note={role === 'lead' ? undefined : 'A lead changes these.'} />
      <Tabs label="The agency’s settings" tabs={tabs} value={part} onChange={choose} />
    </div>
  );
}
