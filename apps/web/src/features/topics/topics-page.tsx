import { useQuery } from '@tanstack/react-query';
import type { ClientShape, TopicsShape } from '@zesting/contract';
import { Link } from 'react-router';
import { topicsQuery } from '../../api/topics';
import { wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { ChooseClient } from '../../parts/choose-client';
import { PlanNav } from '../../parts/plan-nav';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { rowsOf, ROWS_SHOWN, rowsShown, type RowsShown } from './matrix';
import { MatrixTable } from './matrix-table';
import { MonthsDialog, NewTopicsDialog, RenameDialog, TreatmentsDialog } from './topic-dialogs';

/** A client's pillars as a tree, and the matrix of subjects and treatments. */
export function TopicsPage() {
  const { client } = useClients();
  if (client) return <ClientTopics key={client.id} client={client} />;
  return (
    <>
      <PageHead
        nav={<PlanNav />}
        title="Pillars"
        note="What it is all about: pillars, their topics, and in which ways each can be treated."
      />
      <ChooseClient what="The pillars of" />
    </>
  );
}

const SHOWN_WORDS: Record<RowsShown, string> = { all: 'All', free: 'With free cells', unused: 'Unused', months: 'Put into months' };

function ClientTopics({ client }: { client: ClientShape }) {
  const topics = useQuery(topicsQuery(client.id));
  const { opened, open, close } = useOpened();
  const { search, put } = useSearch();
  const { to } = useClients();
  if (topics.isError) return <Failed message={wordsOf(topics.error)} onRetry={() => void topics.refetch()} />;
  if (!topics.data) return <Loading />;
  const all = topics.data;
  const shown = ROWS_SHOWN.find((name) => name === search.get('rows')) ?? 'all';
  const words = search.get('words') ?? '';
  const rows = rowsOf(all);
  const kept = rowsShown(rows, shown, words);
  const [what = '', id = ''] = (opened ?? '').split(':');
  const topic = all.topics.find((one) => one.id === id);
  return (
    <>
      <PageHead nav={<PlanNav />} title="Pillars" note="What it is all about, and in which ways.">
        <Button onClick={() => open('treatments')}>Treatments</Button>
      </PageHead>
      {client.pillars.length === 0 ? (
        <Empty title={`${client.name} has no pillars yet`}>
          <Link to={to(`/clients/${client.id}?part=pillars`)} className="text-pine underline">
            Name the few subjects that it keeps returning to
          </Link>
          , with the share each should have; their topics follow here.
        </Empty>
      ) : (
        <>
          <div className="flex flex-wrap items-center gap-3 mb-3">
            <Choice
              label="Rows"
              value={shown}
              options={ROWS_SHOWN.map((name) => [name, SHOWN_WORDS[name]] as const)}
              onChange={(rowsWanted) => put({ rows: rowsWanted === 'all' ? null : rowsWanted }, { replace: true })}
            />
            <input
              className="field w-56"
              aria-label="Words of a subject"
              placeholder="Words of a subject"
              value={words}
              onChange={(event) => put({ words: event.target.value || null }, { replace: true })}
            />
            {kept.length < rows.length && (
              <span className="text-rind text-[13px]">
                {count(rows.length - kept.length, 'row')} {rows.length - kept.length === 1 ? 'is' : 'are'} not shown
              </span>
            )}
            <p className="text-muted text-[13px] ml-auto">
              <SizeWords all={all} />
            </p>
          </div>
          <MatrixTable client={client} all={all} rows={kept} onOpen={open} />
        </>
      )}
      {what === 'new' && <NewTopicsDialog key={id} client={client} pillarId={topic?.pillarId ?? id} parent={topic} onClose={close} />}
      {what === 'rename' && topic && <RenameDialog key={id} topic={topic} onClose={close} />}
      {what === 'months' && topic && <MonthsDialog key={id} topic={topic} thisMonth={all.thisMonth} onClose={close} />}
      {what === 'treatments' && <TreatmentsDialog clientId={client.id} all={all} onClose={close} />}
    </>
  );
}

const months = (number: number): string => (number < 1 ? 'less than a month' : count(Math.floor(number), 'month'));

/** How large the matrix is, and how long it lasts. */
function SizeWords({ all: { size } }: { all: TopicsShape }) {
  if (size.leaves === 0) return null;
  const ways = size.treatments > 1 ? ` × ${size.treatments} = ${count(size.cells, 'piece')}` : '';
  return (
    <>
      {count(size.pillars, 'pillar')}, {count(size.topics, 'topic')}, {count(size.leaves, 'subject')}
      {ways}
      {size.lastsMonths === null
        ? '. There is no rhythm that takes them.'
        : `, ${months(size.lastsMonths)} at ${Math.round(size.perMonth)} a month; ${size.free} free, ${months(size.freeLastsMonths ?? 0)}`}
    </>
  );
}
