import { useQuery } from '@tanstack/react-query';
import type { ClientShape, GoalsShape } from '@zesting/contract';
import { Plus } from 'lucide-react';
import { goalsQuery } from '../../api/goals';
import { call, wordsOf } from '../../lib/api';
import { useClients, useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { ChooseClient } from '../../parts/choose-client';
import { PlanNav } from '../../parts/plan-nav';
import { Button } from '../../ui/button';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { PutAway } from '../../ui/put-away';
import { GoalCard } from './goal-card';
import { GoalDialog } from './goal-dialog';
import { ReadingDialog } from './reading-dialog';
import { Strategy } from './strategy';

/** Where a client is to get to, how it stands, and what is known of its strategy. */
export function GoalsPage() {
  const { client } = useClients();
  if (client) return <ClientGoals key={client.id} client={client} />;
  return (
    <>
      <PageHead nav={<PlanNav />} title="Goals" note="Where a client is to get to, and what is known of its strategy." />
      <ChooseClient what="The goals of" />
    </>
  );
}

function ClientGoals({ client }: { client: ClientShape }) {
  const goals = useQuery(goalsQuery(client.id));
  const { opened, open, close } = useOpened();
  const restore = useWrite((id: string) => call(`/goals/${id}/restore`, { method: 'POST' }));
  if (goals.isError) return <Failed message={wordsOf(goals.error)} onRetry={() => void goals.refetch()} />;
  if (!goals.data) return <Loading />;
  const all = goals.data;
  const [what = '', id = ''] = (opened ?? '').split(':');
  const goal = all.goals.find((one) => one.id === id);
  return (
    <>
      <PageHead nav={<PlanNav />} title="Goals" note="Where it is to get to, and what is known of its strategy.">
        <Button look="main" onClick={() => open('goal')}>
          <Plus size={15} aria-hidden />
          Set a goal
        </Button>
      </PageHead>
      <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_22rem] items-start">
        <div className="grid gap-4">
          {all.goals.length === 0 && (
            <Empty title={`${client.name} has no goals yet`}>
              Say what shall be how much by when: pieces that go out are counted, other figures are typed as they are read. The pace that it
              needs is reckoned.
            </Empty>
          )}
          <Unserved client={client} all={all} />
          {all.goals.map((one) => (
            <GoalCard key={one.id} goal={one} client={client} todayOn={all.todayOn} onOpen={open} />
          ))}
          <PutAway items={all.archived} title="Put away" action="take up again" onBack={(id) => restore.mutate(id)} />
        </div>
        <Strategy client={client} notes={all.notes} />
      </div>
      {(opened === 'goal' || (what === 'edit' && goal)) && (
        <GoalDialog key={opened} client={client} goal={goal} todayOn={all.todayOn} onClose={close} />
      )}
      {what === 'read' && goal && <ReadingDialog key={opened} goal={goal} todayOn={all.todayOn} onClose={close} />}
    </>
  );
}

/** Goals without a pillar, and pillars without a goal. */
function Unserved({ client, all }: { client: ClientShape; all: GoalsShape }) {
  const bare = all.goals.filter(({ pillarIds }) => pillarIds.length === 0).map(({ name }) => name);
  const names = client.pillars.filter(({ id }) => all.pillarsWithout.includes(id)).map(({ name }) => name);
  if (client.pillars.length === 0 || (bare.length === 0 && names.length === 0)) return null;
  return (
    <ul className="card px-4 py-2.5 text-[13px]" aria-label="What serves no goal">
      {bare.length > 0 && (
        <li>
          <span className="text-rind font-medium">No pillar serves</span> {bare.join(', ')}.
        </li>
      )}
      {names.length > 0 && (
        <li>
          <span className="text-rind font-medium">No goal is served by</span> {names.join(', ')}.
        </li>
      )}
    </ul>
  );
}
