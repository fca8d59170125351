import { useQuery } from '@tanstack/react-query';
import type { ClientShape } from '@zesting/contract';
import { nextMonth } from '@zesting/core';
import { planYearQuery } from '../../api/plan';
import { wordsOf } from '../../lib/api';
import { monthWords } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { Button } from '../../ui/button';
import { Failed, Loading, PageHead } from '../../ui/page';
import { Turn } from '../../ui/turn';
import { ChooseClient } from '../../parts/choose-client';
import { CycleDialog } from './cycle-dialog';
import { monthOf } from './month-of';
import { ObservancesDialog } from './observances-dialog';
import { PlanNav } from '../../parts/plan-nav';
import { isLayer, LAYERS, type LayerKey } from './year-layers';
import { YearTable } from './year-table';

const MONTHS = 12;

/** A client's year in layers: themes, what is prepared, what is closed, and how far each month is filled. */
export function YearPage() {
  const { client } = useClients();
  if (client) return <ClientYear key={client.id} client={client} />;
  return (
    <>
      <PageHead nav={<PlanNav />} title="Year" note="Twelve months in layers." />
      <ChooseClient what="The year of" />
    </>
  );
}

function ClientYear({ client }: { client: ClientShape }) {
  const { search, put } = useSearch();
  const { todayOn } = useSession();
  const { opened, open, close } = useOpened();
  const month = monthOf(search.get('month'), todayOn);
  const year = useQuery(planYearQuery(client.id, month));
  if (year.isError) return <Failed message={wordsOf(year.error)} onRetry={() => void year.refetch()} />;
  if (!year.data) return <Loading />;
  const hidden = new Set((search.get('hide') ?? '').split(',').filter(isLayer));
  const show = (layer: LayerKey, isShown: boolean) => {
    const next = new Set(hidden);
    if (isShown) next.delete(layer);
    else next.add(layer);
    put({ hide: next.size > 0 ? [...next].join(',') : null }, { replace: true });
  };
  return (
    <>
      <PageHead
        nav={<PlanNav />}
        title={`${monthWords(month)} and on`}
        note="Each month leads to its slots."
        turn={
          <Turn
            before="Twelve months before"
            home="From this month"
            after="Twelve months after"
            onBefore={() => put({ month: nextMonth(month, -MONTHS) })}
            onHome={() => put({ month: null })}
            onAfter={() => put({ month: nextMonth(month, MONTHS) })}
          />
        }
      >
        <Button onClick={() => open('observances')}>Observances…</Button>
        <Button onClick={() => open('cycle')}>{year.data.cycle ? `Cycle of ${year.data.cycle.names.length}` : 'A cycle of themes…'}</Button>
      </PageHead>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1 mb-3 text-[13px]">
        <legend className="sr-only">Layers that are shown</legend>
        {LAYERS.map(({ key, name }) => (
          <label key={key} className="flex items-center gap-1.5 min-h-6">
            <input
              type="checkbox"
              className="size-4 accent-pine"
              checked={!hidden.has(key)}
              onChange={(event) => show(key, event.target.checked)}
            />
            {name}
          </label>
        ))}
      </fieldset>
      <YearTable client={client} year={year.data} hidden={hidden} />
      {opened === 'observances' && <ObservancesDialog client={client} onClose={close} />}
      {opened === 'cycle' && <CycleDialog clientId={client.id} month={month} cycle={year.data.cycle} onClose={close} />}
    </>
  );
}
