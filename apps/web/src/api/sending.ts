import { queryOptions } from '@tanstack/react-query';
import type { ChannelLinksShape, SendingNowShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const sendingKeys = {
  now: (query: string) => ['sending', query] as const,
  links: (clientId: string) => ['channel-links', clientId] as const,
} as const;

/** What goes out by itself at present, and what is stopped. */
export const sendingNowQuery = (query: string) =>
  queryOptions({ queryKey: sendingKeys.now(query), queryFn: () => call<SendingNowShape>(`/sending?${query}`) });

/** How a client's channels are reached by themselves. */
export const channelLinksQuery = (clientId: string) =>
  queryOptions({
    queryKey: sendingKeys.links(clientId),
    meta: AS_WRITTEN,
    queryFn: () => call<ChannelLinksShape>(`/clients/${clientId}/channel-links`),
  });
