import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import type { MailPage, MailRow, RequestAddressShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const mailKeys = {
  list: (state: MailRow['state'], query: string) => ['mails', state, query] as const,
  addresses: ['mails', 'addresses'] as const,
} as const;

/** Mails that did not become a request by themselves. @param query which client's, as `useClients` says it */
export const mailsQuery = (state: MailRow['state'], query: string) =>
  infiniteQueryOptions({
    queryKey: mailKeys.list(state, query),
    meta: AS_WRITTEN,
    queryFn: ({ pageParam }) => call<MailPage>(`/mails?state=${state}&${query}${pageParam ? `&cursor=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.nextCursor ?? undefined,
  });

/** The request addresses of one's clients; none where no mail is taken in. */
export const addressesQuery = queryOptions({
  queryKey: mailKeys.addresses,
  meta: AS_WRITTEN,
  queryFn: () => call<RequestAddressShape[]>('/mails/addresses'),
});
