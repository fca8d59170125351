import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { CalendarCountsShape, CalendarShape, ChannelLookShape, DaysOffShape, FindShape, PresenceShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const calendarKeys = {
  of: (query: string, from: string, to: string) => ['calendar', query, from, to] as const,
  counts: (query: string, from: string, to: string) => ['calendar', 'counts', query, from, to] as const,
  look: (channelId: string) => ['calendar', 'look', channelId] as const,
  daysOff: (asked: string) => ['days-off', asked] as const,
} as const;

/** What is placed from `from` to `to`, both included. @param placementId one that is shown however many there are */
export const calendarQuery = (query: string, from: string, to: string, placementId: string | null) =>
  queryOptions({
    queryKey: calendarKeys.of(query, from, to),
    queryFn: () => call<CalendarShape>(`/calendar?from=${from}&to=${to}&${query}${placementId ? `&placementId=${placementId}` : ''}`),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000, // clocks go on
  });

/** How much stands on each day from `from` to `to`, both included. */
export const calendarCountsQuery = (query: string, from: string, to: string) =>
  queryOptions({
    queryKey: calendarKeys.counts(query, from, to),
    queryFn: () => call<CalendarCountsShape>(`/calendar/counts?from=${from}&to=${to}&${query}`),
    placeholderData: keepPreviousData,
  });

/** A channel as those see it who follow it, a page at a time. */
export const channelLookQuery = (clientId: string, channelId: string) =>
  infiniteQueryOptions({
    queryKey: calendarKeys.look(channelId),
    queryFn: ({ pageParam }) => call<ChannelLookShape>(`/clients/${clientId}/channels/${channelId}/look?after=${pageParam}`),
    initialPageParam: '0',
    getNextPageParam: (page) => page.next,
  });

/** @param asked whose days off, from when to when */
export const daysOffQuery = (asked: string) =>
  queryOptions({
    queryKey: calendarKeys.daysOff(asked),
    meta: AS_WRITTEN,
    queryFn: () => call<DaysOffShape>(`/days-off?${asked}`),
    staleTime: 60_000,
  });

export const findKeys = { of: (typed: string) => ['find', typed] as const } as const;

export const findQuery = (typed: string) =>
  queryOptions({
    queryKey: findKeys.of(typed),
    queryFn: ({ signal }) => call<FindShape>(`/find?q=${encodeURIComponent(typed)}`, { signal }),
    enabled: typed !== '',
    placeholderData: keepPreviousData,
  });

export const presenceKeys = {
  on: (pieceId: string) => ['presence', pieceId] as const,
  window: (pieceId: string, tabId: string) => ['presence', pieceId, tabId] as const,
} as const;

/** Says that this window has the piece open, and answers who else has. */
export const presenceQuery = (pieceId: string, tabId: string) =>
  queryOptions({
    queryKey: presenceKeys.window(pieceId, tabId),
    queryFn: () => call<PresenceShape>(`/pieces/${pieceId}/presence/${tabId}`, { method: 'PUT', body: {} }),
    staleTime: 0,
    gcTime: 0,
  });
