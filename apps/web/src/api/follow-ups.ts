import { queryOptions } from '@tanstack/react-query';
import type { FollowUpListsShape, FollowUpsShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const followUpKeys = {
  of: (query: string) => ['follow-ups', query] as const,
  lists: (clientId: string) => ['follow-up-lists', clientId] as const,
} as const;

/** What is to be done around what goes out. */
export const followUpsQuery = (query: string) =>
  queryOptions({ queryKey: followUpKeys.of(query), queryFn: () => call<FollowUpsShape>(`/follow-ups?${query}`) });

/** What is done around everything that goes out on each of a client's channels. */
export const followUpListsQuery = (clientId: string) =>
  queryOptions({
    queryKey: followUpKeys.lists(clientId),
    meta: AS_WRITTEN,
    queryFn: () => call<FollowUpListsShape>(`/clients/${clientId}/follow-up-lists`),
  });
