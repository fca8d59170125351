import { useQuery } from '@tanstack/react-query';
import { isFree, slotKey, toCase, type ClientShape } from '@zesting/contract';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { planMonthQuery } from '../../api/plan';
import { wordsOf } from '../../lib/api';
import { count, monthWords } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { RunwayStrip } from '../../parts/runway-strip';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ChooseClient } from '../../parts/choose-client';
import { CopyDialog } from './copy-dialog';
import { MonthHead } from './month-head';
import { MonthSide } from './month-side';
import { monthOf } from './month-of';
import { PlanNav } from '../../parts/plan-nav';
import { MonthsToStart } from './months-to-start';
import { StartDialog } from './start-dialog';
import { ProposalBar } from './proposal-bar';
import { SlotTable } from './slot-table';
import { useNames } from './use-names';
import { useProposal } from './use-proposal';

/** A client's month as slots in the order of their dates, what stands in them and what could; or, for all clients, how long each is provided for. */
export function PlanPage() {
  const { client } = useClients();
  if (client) return <ClientMonth key={client.id} client={client} />;
  return (
    <>
      <PageHead nav={<PlanNav />} title="Plan" note="How far each client is provided for, and whose month to plan." />
      <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)] items-start">
        <RunwayStrip />
        <div className="grid gap-4">
          <MonthsToStart />
          <ChooseClient what="Plan the month of" />
        </div>
      </div>
    </>
  );
}

function ClientMonth({ client }: { client: ClientShape }) {
  const { search, put } = useSearch();
  const { todayOn } = useSession();
  const { to } = useClients();
  const table = useRef<HTMLTableElement>(null);
  const [isChosenHere, setChosenHere] = useState(false);
  const asked = monthOf(search.get('month'), todayOn);
  const plan = useQuery(planMonthQuery(client.id, asked));
  const names = useNames(client);
  const proposal = useProposal(client.id, plan.data);
  const { opened, open, close } = useOpened();
  if (plan.isError) return <Failed message={wordsOf(plan.error)} onRetry={() => void plan.refetch()} />;
  if (!plan.data) return <Loading />;
  // until another month is there, all that stands here is of the one before
  const { month, slots, hasRhythm } = plan.data;
  const free = slots.filter(isFree);
  const chosen = slots.find((slot) => slotKey(slot) === search.get('slot'));
  return (
    <>
      <MonthHead
        asked={asked}
        plan={plan.data}
        proposal={proposal}
        free={free.length}
        onCopy={() => open('copy')}
        onStart={() => open('start')}
      />
      {opened === 'start' && <StartDialog key={asked} client={client} month={asked} onClose={close} />}
      {opened === 'copy' && <CopyDialog key={month} client={client} month={month} onClose={close} />}
      {slots.length === 0 ? (
        <Empty title={hasRhythm ? `The rhythm has no slot in ${monthWords(month)}` : `${client.name} has no rhythm yet`}>
          {hasRhythm ? 'Look at another month, or ' : 'Say on which days what goes out where; the months follow from it. '}
          <Link to={to('/plan/rhythm')} className="text-pine underline">
            {hasRhythm ? 'change the rhythm' : 'Set the rhythm'}
          </Link>
        </Empty>
      ) : (
        <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_20rem] items-start">
          <div className="min-w-0">
            {proposal.lines && <ProposalBar proposal={proposal} />}
            <SlotTable
              ref={table}
              plan={plan.data}
              names={names}
              proposal={proposal}
              chosen={chosen && slotKey(chosen)}
              onChoose={(key) => {
                setChosenHere(true);
                put({ slot: key }, { replace: true });
              }}
            />
            {plan.data.beside.length > 0 && (
              <p className="text-muted text-[13px] mt-2">
                {count(plan.data.beside.length, 'placement')} of the month {plan.data.beside.length === 1 ? 'stands' : 'stand'} in no slot:{' '}
                {plan.data.beside
                  .slice(0, 3)
                  .map(({ title }) => `“${title}”`)
                  .join(', ')}
                {plan.data.beside.length > 3 && ` and ${plan.data.beside.length - 3} more`}.{' '}
                <Link to={to(`/calendar?view=month&month=${month}`)} className="text-pine underline">
                  See them on the calendar
                </Link>
              </p>
            )}
          </div>
          <MonthSide
            client={client}
            month={month}
            plan={plan.data}
            names={names}
            chosen={chosen}
            whole={toCase(plan.data)}
            isChosenHere={isChosenHere}
            onFilled={() => table.current?.focus()}
          />
        </div>
      )}
    </>
  );
}
