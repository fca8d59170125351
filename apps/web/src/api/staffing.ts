import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { GiveOutBody, StaffingOutcomeShape, StaffingProposalShape } from '@zesting/contract';
import { call } from '../lib/api';

/**
 * Who could take the steps that are due by a day. It may take a while: it ends when nobody waits for it, and no change asks it anew: see `UNTOUCHED` in
 * lib/queries.
 * @param clients what narrows it to a client, as `useClients` has it
 */
export const staffingQuery = (toOn: string, withGiven: boolean, clients: string) =>
  queryOptions({
    queryKey: ['staffing', toOn, withGiven, clients],
    queryFn: ({ signal }) =>
      call<StaffingProposalShape>(
        `/staffing/proposal?${new URLSearchParams({ to: toOn, ...(withGiven ? { given: 'yes' } : {}), ...Object.fromEntries(new URLSearchParams(clients)) })}`,
        { signal },
      ),
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });

/** So long it is waited for what is chosen next, before it is reckoned, in milliseconds. */
const CHOOSING_MS = 250;

/** What it would come to if steps were given as they are chosen. */
export const givenOutcomeQuery = (body: GiveOutBody) =>
  queryOptions({
    queryKey: ['staffing', 'outcome', body],
    queryFn: async ({ signal }) => {
      await new Promise((resolve) => setTimeout(resolve, CHOOSING_MS));
      signal.throwIfAborted();
      return call<StaffingOutcomeShape>('/staffing/outcome', { method: 'POST', body, signal });
    },
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
