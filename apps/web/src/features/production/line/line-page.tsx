import { useInfiniteQuery } from '@tanstack/react-query';
import { addDays, getDay, mondayOf, parseDay, type Day, type PlanDoer } from '@zesting/core';
import { useMemo } from 'react';
import { lineQuery } from '../../../api/production';
import { wordsOf } from '../../../lib/api';
import type { Axis } from '../../../lib/axis';
import { count } from '../../../lib/format';
import { useClients, useSession } from '../../../lib/queries';
import { useSearch } from '../../../lib/use-search';
import { SavedViews } from '../../../parts/saved-views';
import { Button } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../../ui/page';
import { DaysTurn } from '../days-turn';
import { PieceFilterRow, usePieceFilter } from '../piece-filter';
import { ProductionNav } from '../../../parts/production-nav';
import { doerOf } from './line-case';
import { LineRows } from './line-rows';

const SPANS = { '1': '1 week', '2': '2 weeks', '4': '4 weeks', '13': '3 months' } as const;
type Weeks = keyof typeof SPANS;

/** The days that are seen: from the Monday of this week, unless the address says another. */
function useAxis(): { fromOn: Day; weeks: Weeks } {
  const { search } = useSearch();
  const { todayOn } = useSession();
  const weeks = (Object.keys(SPANS) as Weeks[]).find((one) => one === search.get('weeks')) ?? '4';
  const asked = parseDay(search.get('from') ?? '');
  const thisWeek = mondayOf(getDay(todayOn));
  const fromOn = asked ? mondayOf(asked) : thisWeek;
  return { fromOn, weeks };
}

/** Open pieces over days: a row each, its steps as bars that are dragged, with what becomes late told at once. */
export function LinePage() {
  const { query, to } = useClients();
  const { put } = useSearch();
  const filter = usePieceFilter();
  const { fromOn, weeks } = useAxis();
  const axis = useMemo((): Axis => ({ fromOn, toOn: addDays(fromOn, Number(weeks) * 7 - 1) }), [fromOn, weeks]);
  const line = useInfiniteQuery(lineQuery(query, filter.query));
  const pages = line.data?.pages;
  const doers = useMemo(
    () => new Map<string, PlanDoer>((pages ?? []).flatMap((page) => page.doers.map((doer) => [doer.key, doerOf(doer)] as const))),
    [pages],
  );
  const rows = useMemo(() => (pages ?? []).flatMap((page) => page.rows), [pages]);
  if (line.isError) return <Failed message={wordsOf(line.error)} onRetry={() => void line.refetch()} />;
  const [first] = pages ?? [];
  if (!first) return <Loading />;
  return (
    <>
      <PageHead nav={<ProductionNav />} title="Production" note={first.total === null ? undefined : count(first.total, 'open piece')}>
        <Choice
          label="How much is seen"
          value={weeks}
          options={Object.entries(SPANS) as [Weeks, string][]}
          onChange={(next) => put({ weeks: next === '4' ? null : next }, { replace: true })}
        />
        <DaysTurn fromOn={fromOn} toOn={axis.toOn} weeks={Number(weeks)} />
        <SavedViews page="production" />
      </PageHead>
      <PieceFilterRow filter={filter} leftOut={first.leftOut} />
      {rows.length === 0 ? (
        <Empty title={filter.isNarrowed ? 'No open piece is like that' : 'Nothing is open'}>
          {!filter.isNarrowed && (
            <a href={to('/requests')} className="text-pine underline">
              Go to the requests
            </a>
          )}
        </Empty>
      ) : (
        <>
          <LineRows
            rows={rows}
            doers={doers}
            axis={axis}
            todayOn={getDay(first.todayOn)}
            tightDays={first.tightDays}
            onEnd={() => line.hasNextPage && !line.isFetchingNextPage && void line.fetchNextPage()}
          />
          {line.hasNextPage && (
            <Button look="quiet" className="w-full" onClick={() => void line.fetchNextPage()}>
              Show more
            </Button>
          )}
          <p className="text-muted text-[12.5px] mt-2">
            A bar is drawn as work is predicted, the thin line behind it to the day by which it must end. Drag a bar to pin its finish, its
            end to give it more days, the diamond to move the day that it goes out; or go to it with Tab and use the arrow keys, then Enter.
            What is too narrow to be taken hold of is changed closer up, or on the page of the piece.
          </p>
        </>
      )}
    </>
  );
}
