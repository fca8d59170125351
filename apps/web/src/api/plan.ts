import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import type {
  CopyMonthBody,
  CopyMonthShape,
  CoveredShape,
  FreeSlotsShape,
  IdeaPageShape,
  IdeasShape,
  MonthCostShape,
  MonthFrameShape,
  MonthsToStartShape,
  PlanMonthShape,
  ProductionDayShape,
  RhythmShape,
  RunUpShape,
  RunwayShape,
  YearShape,
} from '@zesting/contract';
import { call } from '../lib/api';

export const planKeys = {
  month: (clientId: string, month: string) => ['plan', 'month', clientId, month] as const,
  year: (clientId: string, month: string) => ['plan', 'year', clientId, month] as const,
  cost: (clientId: string, month: string) => ['plan', 'cost', clientId, month] as const,
  rhythm: (clientId: string) => ['plan', 'rhythm', clientId] as const,
  runway: (query: string) => ['plan', 'runway', query] as const,
  slots: (query: string, from: string, to: string) => ['plan', 'slots', query, from, to] as const,
  copy: (clientId: string, from: string, to: readonly string[]) => ['plan', 'copy', clientId, from, ...to] as const,
  runUp: (markerId: string) => ['plan', 'run-up', markerId] as const,
  production: (markerId: string) => ['plan', 'production', markerId] as const,
  ideas: (query: string, state: string) => ['plan', 'ideas', query, state] as const,
  idea: (ideaId: string) => ['plan', 'idea', ideaId] as const,
  frame: (clientId: string, month: string) => ['plan', 'frame', clientId, month] as const,
  toStart: (query: string) => ['plan', 'to-start', query] as const,
  covered: (ideaId: string) => ['plan', 'idea', ideaId, 'covered'] as const,
} as const;

/** A client's month. @param month `YYYY-MM` */
export const planMonthQuery = (clientId: string, month: string) =>
  queryOptions({
    queryKey: planKeys.month(clientId, month),
    queryFn: () => call<PlanMonthShape>(`/clients/${clientId}/plan?month=${month}`),
    placeholderData: keepPreviousData,
  });

/** Twelve months of a client, from the month given. */
export const planYearQuery = (clientId: string, month: string) =>
  queryOptions({
    queryKey: planKeys.year(clientId, month),
    queryFn: () => call<YearShape>(`/clients/${clientId}/year?month=${month}`),
    placeholderData: keepPreviousData,
  });

/** What a month is made of before a single idea. */
export const monthFrameQuery = (clientId: string, month: string) =>
  queryOptions({
    queryKey: planKeys.frame(clientId, month),
    queryFn: () => call<MonthFrameShape>(`/clients/${clientId}/plan/frame?month=${month}`),
  });

/** Months that should be under way and that nobody has begun to plan. */
export const monthsToStartQuery = (query: string) =>
  queryOptions({ queryKey: planKeys.toStart(query), queryFn: () => call<MonthsToStartShape>(`/months-to-start?${query}`) });

/** What the open slots of a month ask to be made. */
export const monthCostQuery = (clientId: string, month: string) =>
  queryOptions({
    queryKey: planKeys.cost(clientId, month),
    queryFn: () => call<MonthCostShape>(`/clients/${clientId}/plan/cost?month=${month}`),
    placeholderData: keepPreviousData,
  });

export const rhythmQuery = (clientId: string) =>
  queryOptions({ queryKey: planKeys.rhythm(clientId), queryFn: () => call<RhythmShape>(`/clients/${clientId}/rhythm`) });

/** How long what is signed and dated lasts at each client. @param query `clientId=…`, or nothing */
export const runwayQuery = (query: string) =>
  queryOptions({ queryKey: planKeys.runway(query), queryFn: () => call<RunwayShape>(`/runway?${query}`), staleTime: 30_000 });

/** The pieces that go before and after a marker. */
export const runUpQuery = (markerId: string) =>
  queryOptions({ queryKey: planKeys.runUp(markerId), queryFn: () => call<RunUpShape[]>(`/markers/${markerId}/run-up`) });

/** What is made together on a production day. */
export const productionDayQuery = (markerId: string) =>
  queryOptions({ queryKey: planKeys.production(markerId), queryFn: () => call<ProductionDayShape>(`/markers/${markerId}/production`) });

/** Slots in which nothing stands, from `from` to `to`. */
export const freeSlotsQuery = (query: string, from: string, to: string) =>
  queryOptions({
    queryKey: planKeys.slots(query, from, to),
    queryFn: () => call<FreeSlotsShape>(`/slots?from=${from}&to=${to}&${query}`),
    placeholderData: keepPreviousData,
  });

/** Ideas, a page at a time. @param state `open`, `dropped` or `used` */
export const ideasQuery = (query: string, state: string) =>
  infiniteQueryOptions({
    queryKey: planKeys.ideas(query, state),
    queryFn: ({ pageParam }) => call<IdeasShape>(`/ideas?idea=${state}&after=${pageParam}&${query}`),
    initialPageParam: '0',
    getNextPageParam: (page) => page.next,
  });

export const ideaQuery = (ideaId: string) =>
  queryOptions({ queryKey: planKeys.idea(ideaId), queryFn: () => call<IdeaPageShape>(`/ideas/${ideaId}`) });

/** What of the same client is much like an idea. */
export const coveredQuery = (ideaId: string) =>
  queryOptions({ queryKey: planKeys.covered(ideaId), queryFn: () => call<CoveredShape[]>(`/ideas/${ideaId}/covered`) });

/** Copies what stands in one month of a client into others, or tells what it would come to. */
export const copyMonth = (clientId: string, body: CopyMonthBody): Promise<CopyMonthShape> =>
  call<CopyMonthShape>(`/clients/${clientId}/plan/copy`, { method: 'POST', body });

/** What copying a month into others would come to. */
export const copyPreviewQuery = (clientId: string, from: string, to: readonly string[]) =>
  queryOptions({
    queryKey: planKeys.copy(clientId, from, [...to].sort()),
    queryFn: () => copyMonth(clientId, { from, to: [...to], isPreview: true }),
    enabled: to.length > 0,
  });
