import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { AskableFormShape, FeasibilityShape, RequestPage, RequestShape, VerdictShape } from '@zesting/contract';
import { call } from '../lib/api';

export const requestKeys = {
  list: (query: string) => ['requests', query] as const,
  one: (requestId: string) => ['request', requestId] as const,
  feasibility: (path: string, routeId: string) => ['feasibility', path, routeId] as const,
  verdict: (requestId: string, routeId: string) => ['request', requestId, 'verdict', routeId] as const,
  askable: (clientId: string) => ['askable', clientId] as const,
} as const;

/** @param query which client's, as `useClients` says it */
export const requestsQuery = (query: string) =>
  infiniteQueryOptions({
    queryKey: requestKeys.list(query),
    queryFn: ({ pageParam }) => call<RequestPage>(`/requests?${query}${pageParam ? `&cursor=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.nextCursor ?? undefined,
    placeholderData: keepPreviousData,
  });

export const requestQuery = (requestId: string) =>
  queryOptions({ queryKey: requestKeys.one(requestId), queryFn: () => call<RequestShape>(`/requests/${requestId}`) });

/** What a route would allow. @param path of the request or the client, `/requests/…` */
export const feasibilityQuery = (path: string, routeId: string) =>
  queryOptions({
    queryKey: requestKeys.feasibility(path, routeId),
    queryFn: () => call<FeasibilityShape>(`${path}/feasibility/${routeId}`),
  });

/** A request judged with figures. @param routeId empty: by the route that its form’s rules say */
export const verdictQuery = (requestId: string, routeId: string) =>
  queryOptions({
    queryKey: requestKeys.verdict(requestId, routeId),
    queryFn: () => call<VerdictShape>(`/requests/${requestId}/verdict${routeId ? `?routeId=${routeId}` : ''}`),
    placeholderData: keepPreviousData,
  });

/** The forms by which something can be taken down for a client. */
export const askableQuery = (clientId: string) =>
  queryOptions({ queryKey: requestKeys.askable(clientId), queryFn: () => call<AskableFormShape[]>(`/requests/taken-down/${clientId}`) });
