import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { ClientShape } from '@zesting/contract';
import { addDays, getDay, mondayOf, parseDay, type Day } from '@zesting/core';
import { copyTableQuery } from '../../../api/production';
import { wordsOf } from '../../../lib/api';
import { count } from '../../../lib/format';
import { useClients, useSession } from '../../../lib/queries';
import { useSearch } from '../../../lib/use-search';
import { ChooseClient } from '../../../parts/choose-client';
import { buttonClass } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../../ui/page';
import { DaysTurn } from '../days-turn';
import { ProductionNav } from '../../../parts/production-nav';
import { CopyTable } from './copy-table';

const SPANS = { '1': '1 week', '2': '2 weeks', '5': '5 weeks' } as const;
type Weeks = keyof typeof SPANS;

/** What goes out on a client's channels in a period, one below another: written, compared, pasted and taken away. */
export function CopyPage() {
  const { client } = useClients();
  const { search, put } = useSearch();
  const { todayOn } = useSession();
  const weeks = (Object.keys(SPANS) as Weeks[]).find((one) => one === search.get('weeks')) ?? '5';
  const fromOn = mondayOf(parseDay(search.get('from') ?? '') ?? getDay(todayOn));
  const toOn = addDays(fromOn, Number(weeks) * 7 - 1);
  return (
    <>
      <PageHead nav={<ProductionNav />} title="Production">
        <Choice
          label="How much is seen"
          value={weeks}
          options={Object.entries(SPANS) as [Weeks, string][]}
          onChange={(next) => put({ weeks: next === '5' ? null : next }, { replace: true })}
        />
        <DaysTurn fromOn={fromOn} toOn={toOn} weeks={Number(weeks)} />
      </PageHead>
      {client ? <CopyOf key={client.id} client={client} fromOn={fromOn} toOn={toOn} /> : <ChooseClient what="Whose copy?" />}
    </>
  );
}

function CopyOf({ client, fromOn, toOn }: { client: ClientShape; fromOn: Day; toOn: Day }) {
  const { to } = useClients();
  const table = useQuery({ ...copyTableQuery(client.id, fromOn, toOn), placeholderData: keepPreviousData });
  if (table.isError) return <Failed message={wordsOf(table.error)} onRetry={() => void table.refetch()} />;
  if (!table.data) return <Loading />;
  const { rows, undated } = table.data;
  const taken = (kind: 'csv' | 'xlsx') => `/api/clients/${client.id}/copy/${kind}?from=${fromOn}&to=${toOn}`;
  const notHere = undated > 0 && `${count(undated, 'placement')} without a day ${undated === 1 ? 'is' : 'are'} not in it.`;
  if (rows.length === 0)
    return (
      <Empty title="Nothing goes out in these weeks">
        What stands on the <a href={to('/calendar')}>calendar</a> is written here. {notHere}
      </Empty>
    );
  return (
    <>
      <CopyTable client={client} table={table.data} />
      <p className="flex flex-wrap items-center gap-2 mt-3 text-[13px] text-muted no-print">
        {notHere}
        <a href={taken('xlsx')} download className={buttonClass()}>
          As a spreadsheet
        </a>
        <a href={taken('csv')} download className={buttonClass()}>
          As CSV
        </a>
      </p>
    </>
  );
}
