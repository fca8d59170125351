import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import type {
  ActivityPage,
  ChaseShape,
  DeskShape,
  LineShape,
  LoadShape,
  MendsShape,
  PacketsShape,
  PathChangeBody,
  PathPreviewShape,
  PersonLoadShape,
  PiecePage,
  PieceShape,
  RouteShape,
  RouteAlongShape,
  RoutesPageShape,
  SheetShape,
  StationsShape,
  CopyTableShape,
  ForecastShape,
  OwnClockShape,
  StepHoursShape,
  RemarksShape,
  SittingShape,
  ToMakeShape,
  TeamNotesShape,
  VersionsShape,
} from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const pieceKeys = {
  list: (query: string, asked: string) => ['pieces', query, asked] as const,
  line: (query: string, asked: string) => ['pieces', 'line', query, asked] as const,
  sheet: (query: string, asked: string) => ['pieces', 'sheet', query, asked] as const,
  load: (from: string, to: string) => ['pieces', 'load', from, to] as const,
  personLoad: (personId: string) => ['pieces', 'load', personId] as const,
  one: (pieceId: string) => ['piece', pieceId] as const,
  notes: (pieceId: string) => ['piece', pieceId, 'notes'] as const,
  preview: (pieceId: string, changes: readonly PathChangeBody[]) => ['piece', pieceId, 'preview', changes] as const,
  versions: (pieceId: string, older: string | null, newer: string | null) => ['piece', pieceId, 'versions', older, newer] as const,
  remarks: (pieceId: string) => ['piece', pieceId, 'remarks'] as const,
  forecast: (pieceId: string) => ['piece', pieceId, 'forecast'] as const,
  clock: ['steps', 'clock'] as const,
  hours: (stepId: string) => ['steps', 'hours', stepId] as const,
  toMake: (query: string, asked: string) => ['pieces', 'to-make', query, asked] as const,
  sitting: (query: string, asked: string, skill: string) => ['pieces', 'to-make', query, asked, skill] as const,
  copyTable: (clientId: string, from: string, to: string) => ['pieces', 'copy', clientId, from, to] as const,
  mends: (pieceId: string) => ['piece', pieceId, 'mends'] as const,
} as const;

/** @param query which client's, as `useClients` says it; @param asked what is shown, and in which order */
export const piecesQuery = (query: string, asked: string) =>
  infiniteQueryOptions({
    queryKey: pieceKeys.list(query, asked),
    queryFn: ({ pageParam }) => call<PiecePage>(`/pieces?${asked}&${query}${pageParam ? `&cursor=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.nextCursor ?? undefined,
    placeholderData: keepPreviousData,
  });

/** Open pieces over days, those that go out first first. */
export const lineQuery = (query: string, asked: string) =>
  infiniteQueryOptions({
    queryKey: pieceKeys.line(query, asked),
    queryFn: ({ pageParam }) => call<LineShape>(`/pieces/line?order=aim&${asked}&${query}${pageParam ? `&cursor=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.nextCursor ?? undefined,
    placeholderData: keepPreviousData,
  });

/** Pieces as lines of a sheet. @param query which client's; @param asked what it is narrowed to */
export const sheetQuery = (query: string, asked: string) =>
  queryOptions({
    queryKey: pieceKeys.sheet(query, asked),
    queryFn: () => call<SheetShape>(`/pieces/sheet?${asked}&${query}`),
    placeholderData: keepPreviousData,
  });

/** Everybody's hours day by day. */
export const loadQuery = (from: string, to: string) =>
  queryOptions({ queryKey: pieceKeys.load(from, to), queryFn: () => call<LoadShape>(`/load?from=${from}&to=${to}`) });

/** What somebody has in front of them. */
export const personLoadQuery = (personId: string) =>
  queryOptions({ queryKey: pieceKeys.personLoad(personId), queryFn: () => call<PersonLoadShape>(`/load/${personId}`) });

export const pieceQuery = (pieceId: string) =>
  queryOptions({ queryKey: pieceKeys.one(pieceId), queryFn: () => call<PieceShape>(`/pieces/${pieceId}`) });

/** What changes of a piece's path would come to. */
export const pathPreviewQuery = (pieceId: string, changes: readonly PathChangeBody[]) =>
  queryOptions({
    queryKey: pieceKeys.preview(pieceId, changes),
    queryFn: () => call<PathPreviewShape>(`/pieces/${pieceId}/path/preview`, { method: 'POST', body: { changes } }),
    staleTime: 0,
    gcTime: 0,
    retry: false,
  });

/** What would bring a late piece back. */
export const mendsQuery = (pieceId: string) =>
  queryOptions({
    queryKey: pieceKeys.mends(pieceId),
    queryFn: () => call<MendsShape>(`/pieces/${pieceId}/path/helps`),
    staleTime: 0,
    gcTime: 0,
  });

/** Two versions side by side. @param older which; what the client saw last unless told. @param newer which; what is being worked on unless told */
export const versionsQuery = (pieceId: string, older: string | null, newer: string | null) =>
  queryOptions({
    queryKey: pieceKeys.versions(pieceId, older, newer),
    meta: AS_WRITTEN,
    queryFn: () => {
      const asked = new URLSearchParams({ ...(older ? { older } : {}), ...(newer ? { newer } : {}) });
      return call<VersionsShape>(`/pieces/${pieceId}/versions?${asked}`);
    },
  });

/** How long the open steps of a piece usually take, and the chance that it is ready in time. */
export const forecastQuery = (pieceId: string) =>
  queryOptions({ queryKey: pieceKeys.forecast(pieceId), queryFn: () => call<ForecastShape>(`/pieces/${pieceId}/path/forecast`) });

/** The clock that one has running. */
export const clockQuery = queryOptions({ queryKey: pieceKeys.clock, meta: AS_WRITTEN, queryFn: () => call<OwnClockShape>('/clock') });

/** The hours of a step. */
export const hoursQuery = (stepId: string) =>
  queryOptions({ queryKey: pieceKeys.hours(stepId), meta: AS_WRITTEN, queryFn: () => call<StepHoursShape>(`/steps/${stepId}/hours`) });

/** How much there is to make, by format and skill. @param query which client's; @param asked what it is narrowed to */
export const toMakeQuery = (query: string, asked: string) =>
  queryOptions({ queryKey: pieceKeys.toMake(query, asked), queryFn: () => call<ToMakeShape>(`/to-make?${asked}&${query}`) });

/** The steps of one skill, one after another. */
export const sittingQuery = (query: string, asked: string, skill: string) =>
  queryOptions({
    queryKey: pieceKeys.sitting(query, asked, skill),
    queryFn: () => call<SittingShape>(`/to-make/steps?${asked}&${query}&${new URLSearchParams({ skill })}`),
  });

/** What goes out on a client's channels on some days. */
export const copyTableQuery = (clientId: string, from: string, to: string) =>
  queryOptions({
    queryKey: pieceKeys.copyTable(clientId, from, to),
    queryFn: () => call<CopyTableShape>(`/clients/${clientId}/copy?from=${from}&to=${to}`),
  });

/** What was said about a piece, by contacts and by the team. */
export const remarksQuery = (pieceId: string) =>
  queryOptions({ queryKey: pieceKeys.remarks(pieceId), meta: AS_WRITTEN, queryFn: () => call<RemarksShape>(`/pieces/${pieceId}/remarks`) });

/** What the team wrote. @param path of a piece or an idea in the API */
export const teamNotesQuery = (path: string) =>
  queryOptions({ queryKey: pieceKeys.notes(path), meta: AS_WRITTEN, queryFn: () => call<TeamNotesShape>(`${path}/notes`) });

export const deskKeys = {
  all: ['desk'],
  of: (query: string) => ['desk', query] as const,
  list: (query: string, list: string) => ['desk', query, list] as const,
  stations: (query: string) => ['stations', query] as const,
} as const;

export const deskQuery = (query: string) =>
  queryOptions({ queryKey: deskKeys.of(query), queryFn: () => call<DeskShape>(`/desk?${query}`) });

/** The whole of one of the desk's lists. */
export const deskListQuery = (query: string, list: string) =>
  queryOptions({ queryKey: deskKeys.list(query, list), queryFn: () => call<DeskShape>(`/desk?${query}&list=${list}`) });

/** How much waits at each station. */
export const stationsQuery = (query: string) =>
  queryOptions({ queryKey: deskKeys.stations(query), queryFn: () => call<StationsShape>(`/stations?${query}`) });

export const routeKeys = { all: ['routes'], whole: ['routes', 'whole'] } as const;

export const routesQuery = queryOptions({ queryKey: routeKeys.all, queryFn: () => call<RouteShape[]>('/routes'), staleTime: 300_000 });

/** Routes with all of their steps, archived ones too. */
export const wholeRoutesQuery = queryOptions({ queryKey: routeKeys.whole, queryFn: () => call<RoutesPageShape>('/routes/whole') });

/** The pieces under way that go by an earlier state of a route, and what would move; reckoned when it is asked. */
export const alongQuery = (routeId: string) =>
  queryOptions({
    queryKey: [...routeKeys.whole, routeId, 'along'],
    queryFn: () => call<RouteAlongShape>(`/routes/${routeId}/along`),
    staleTime: 0,
    gcTime: 0,
  });

/** The agency's list of skills. */
export const skillsQuery = queryOptions({ ...wholeRoutesQuery, select: ({ skills }: RoutesPageShape) => skills });

export const signOffKeys = {
  packets: (query: string) => ['packets', query] as const,
  chase: (path: string) => ['chase', path] as const,
} as const;

export const packetsQuery = (query: string) =>
  queryOptions({ queryKey: signOffKeys.packets(query), queryFn: () => call<PacketsShape>(`/packets?${query}`) });

/** The words of a chase, made anew each time. @param path of what is chased about */
export const chaseQuery = (path: string) =>
  queryOptions({ queryKey: signOffKeys.chase(path), queryFn: () => call<ChaseShape>(`${path}/chase`), staleTime: 0, gcTime: 0 });

export const activityKeys = { of: (path: string) => ['activity', path] as const } as const;

/** The record of a thing, newest first. @param path where the API keeps it */
export const activityQuery = (path: string) =>
  infiniteQueryOptions({
    queryKey: activityKeys.of(path),
    meta: AS_WRITTEN,
    queryFn: ({ pageParam }) => call<ActivityPage>(`${path}${pageParam ? `?before=${pageParam}` : ''}`),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.nextBefore,
  });
