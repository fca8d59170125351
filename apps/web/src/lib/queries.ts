import { addDays, type Day } from '@zesting/core';
import { useMutation, useQuery, useQueryClient, useSuspenseQuery, type UseMutationResult } from '@tanstack/react-query';
import type { ClientShape, PartyOffShape, SessionShape } from '@zesting/contract';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { sessionQuery } from '../api/agency';
import { clientsQuery } from '../api/clients';
import { daysOffQuery } from '../api/calendar';
import { noteAsked } from './own-changes';
import { offReason, type OffReason } from './off-days';
import { standingWords } from './words';
import { ApiProblem, wordsOf } from './api';

/** The signed-in person; pages under the frame have one. */
export function useSession(): SessionShape {
  const { data } = useSuspenseQuery(sessionQuery);
  if (!data) throw new ApiProblem('access.signed_out', 401, {});
  return data;
}

export interface ClientChoice {
  readonly clients: readonly ClientShape[];
  /** the client chosen in the band; undefined means all */
  readonly client: ClientShape | undefined;
  readonly clientOf: (clientId: string) => ClientShape | undefined;
  /** `?clientId=…` for calls, or nothing */
  readonly query: string;
  /** an address inside the application that keeps the chosen client */
  readonly to: (path: string) => string;
}

/** The viewer's clients, and which of them the address chooses (`?client=CODE`). */
export function useClients(): ClientChoice {
  const [search] = useSearchParams();
  const { data: clients } = useSuspenseQuery(clientsQuery);
  const client = clients.find((candidate) => candidate.code === search.get('client'));
  return {
    clients,
    client,
    clientOf: (clientId) => clients.find((candidate) => candidate.id === clientId),
    query: client ? `clientId=${client.id}` : '',
    to: (path) => (client && !path.includes('client=') ? `${path}${path.includes('?') ? '&' : '?'}client=${client.code}` : path),
  };
}

/** What no change in the application touches: asked once. */
const UNTOUCHED = ['session', 'regions', 'presence', 'staffing'];

/**
 * Why a client or a person does not work on a day, for choosing one. Nothing is known until the answer is there.
 * @param of whose days; a person only where the viewer may ask of them; `placing`: blackouts and production days are told too
 */
export function useDaysOff(of: {
  readonly clientId?: string | undefined;
  readonly personId?: string | undefined;
  readonly placing?: boolean;
}): OffReason {
  const { todayOn } = useSession();
  const { clientOf } = useClients();
  const [from, to] = [addDays(todayOn as Day, -31), addDays(todayOn as Day, 400)]; // a day of the contract's
  const asked = new URLSearchParams({
    from,
    to,
    ...(of.clientId ? { clientId: of.clientId } : {}),
    ...(of.personId ? { personId: of.personId } : {}),
  });
  const { data } = useQuery({
    ...daysOffQuery(asked.toString()),
    enabled: of.clientId !== undefined || of.personId !== undefined,
  });
  const party = (whose: string, off: PartyOffShape | null | undefined) =>
    off ? [{ whose, weekdaysOff: off.weekdaysOff, days: new Map(off.days.map(({ on, reason }) => [on, reason])) }] : [];
  const marked = new Map<string, string>();
  for (const day of of.placing ? (data?.marked ?? []) : [])
    marked.set(day.on, [marked.get(day.on), standingWords(day)].filter(Boolean).join('. '));
  const off = offReason([...party(clientOf(of.clientId ?? '')?.name ?? 'the client', data?.client), ...party('the doer', data?.person)]);
  return (on) => [marked.get(on), off(on)].filter(Boolean).join('. ') || undefined;
}

/**
 * Refreshes everything that a change may have touched: whatever is on the screen is asked anew, the rest when it is shown again. Where no
 * more than dates changed, what stands as people wrote it (`AS_WRITTEN`) is left as it is.
 */
export function useTouched(): (what?: 'dates') => void {
  const client = useQueryClient();
  return (what) => {
    if (what === undefined) noteAsked();
    void client.invalidateQueries({
      predicate: ({ queryKey, meta }) => !UNTOUCHED.includes(String(queryKey[0])) && !(what === 'dates' && meta?.['isAsWritten'] === true),
    });
  };
}

/** A write: refreshes what it may have touched, and says what went wrong unless the caller does. */
export function useWrite<Variables, Answer = void>(
  write: (variables: Variables) => Promise<Answer>,
  { quiet = false }: { quiet?: boolean } = {},
): UseMutationResult<Answer, Error, Variables> {
  const touched = useTouched();
  return useMutation({
    mutationFn: write,
    onSettled: () => touched(),
    onError: (error) => {
      if (!quiet) toast.error(wordsOf(error));
    },
  });
}
