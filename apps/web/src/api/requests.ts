import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import type { FeasibilityShape, RequestPage, RequestShape } from '@zesting/contract';
import { call } from '../lib/api';

export const requestKeys = {
  list: (query: string) => ['requests', query] as const,
  one: (requestId: string) => ['request', requestId] as const,
  feasibility: (path: string, routeId: string) => ['feasibility', path, routeId] as const,
} as const;

/** @param query which client's, as `useClients` says it */
export const requestsQuery = (query: string) =>
  infiniteQueryOptions({
    queryKey: requestKeys.list(query),
    queryFn: ({ pageParam }) => call<RequestPage>(`/requests?${query}${pageParam ? `&cursor=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.nextCursor ?? undefined,
  });

export const requestQuery = (requestId: string) =>
  queryOptions({ queryKey: requestKeys.one(requestId), queryFn: () => call<RequestShape>(`/requests/${requestId}`) });

/** What a route would allow. @param path of the request or the client, `/requests/…` */
export const feasibilityQuery = (path: string, routeId: string) =>
  queryOptions({
    queryKey: requestKeys.feasibility(path, routeId),
    queryFn: () => call<FeasibilityShape>(`${path}/feasibility/${routeId}`),
  });
