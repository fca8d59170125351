import { queryOptions } from '@tanstack/react-query';
import type {
  BrandShape,
  ClientLinksShape,
  ClientPageShape,
  ClientRow,
  ClientShape,
  MixShape,
  ObservancesShape,
  ReadyShape,
  RoomShape,
  TeamShape,
} from '@zesting/contract';
import { ApiProblem, call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const clientKeys = {
  all: ['clients'],
  rows: ['clients', 'rows'],
  one: (clientId: string) => ['client', clientId] as const,
  brand: (clientId: string) => ['brand', clientId] as const,
  links: (clientId: string) => ['links', clientId] as const,
  team: (clientId: string) => ['client', clientId, 'team'] as const,
  ready: (clientId: string) => ['ready', clientId] as const,
  observances: (clientId: string) => ['observances', clientId] as const,
  room: (contactId: string) => ['room-view', contactId] as const,
  mix: (clientId: string, month: string) => ['calendar', 'mix', clientId, month] as const,
} as const;

/** The viewer's clients, as every page names them. */
export const clientsQuery = queryOptions({ queryKey: clientKeys.all, queryFn: () => call<ClientShape[]>('/clients'), staleTime: 60_000 });

export const clientRowsQuery = queryOptions({ queryKey: clientKeys.rows, queryFn: () => call<ClientRow[]>('/clients/rows') });

export const clientPageQuery = (clientId: string) =>
  queryOptions({ queryKey: clientKeys.one(clientId), queryFn: () => call<ClientPageShape>(`/clients/${clientId}`) });

/** What the makers need to know of a client's brand. */
export const brandQuery = (clientId: string) =>
  queryOptions({
    queryKey: clientKeys.brand(clientId),
    meta: AS_WRITTEN,
    queryFn: () => call<BrandShape>(`/clients/${clientId}/brand`),
    staleTime: 60_000,
  });

/** Who usually does what for a client. */
export const teamQuery = (clientId: string) =>
  queryOptions({ queryKey: clientKeys.team(clientId), queryFn: () => call<TeamShape>(`/clients/${clientId}/team`) });

/** The links of a client to hand out; null for whoever covers for a manager. */
export const linksQuery = (clientId: string) =>
  queryOptions({
    queryKey: clientKeys.links(clientId),
    meta: AS_WRITTEN,
    queryFn: () =>
      call<ClientLinksShape>(`/clients/${clientId}/links`).catch((problem: unknown) => {
        if (problem instanceof ApiProblem && problem.code === 'access.refused') return null;
        throw problem;
      }),
  });

/** What of a client's waits to be sent. */
export const readyQuery = (clientId: string) =>
  queryOptions({ queryKey: clientKeys.ready(clientId), queryFn: () => call<ReadyShape>(`/clients/${clientId}/ready`) });

/** Days of note that a client may take. */
export const observancesQuery = (clientId: string) =>
  queryOptions({
    queryKey: clientKeys.observances(clientId),
    queryFn: () => call<ObservancesShape>(`/clients/${clientId}/observances`),
  });

/** A contact's room, as they see it. */
export const roomViewQuery = (clientId: string, contactId: string) =>
  queryOptions({ queryKey: clientKeys.room(contactId), queryFn: () => call<RoomShape>(`/clients/${clientId}/rooms/${contactId}`) });

/** What is placed in a month against the shares of the pillars. */
export const mixQuery = (clientId: string, month: string, lastOn: string) =>
  queryOptions({
    queryKey: clientKeys.mix(clientId, month),
    queryFn: () => call<MixShape>(`/clients/${clientId}/mix?from=${month}-01&to=${lastOn}`),
  });
