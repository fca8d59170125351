import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import type { FormPage, FormShape, FormVersionShape, TriedRequestShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const formKeys = {
  all: ['forms'],
  list: (query: string) => ['forms', 'list', query] as const,
  one: (formId: string) => ['forms', formId] as const,
  version: (formId: string, number: number) => ['forms', formId, 'version', number] as const,
  tried: (formId: string) => ['forms', formId, 'tried'] as const,
} as const;

/** @param query which client's, as `useClients` says it, and whether the archived ones */
export const formsQuery = (query: string) =>
  infiniteQueryOptions({
    queryKey: formKeys.list(query),
    meta: AS_WRITTEN,
    queryFn: ({ pageParam }) => call<FormPage>(`/forms?${query}${pageParam ? `&cursor=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.nextCursor ?? undefined,
  });

export const formQuery = (formId: string) =>
  queryOptions({ queryKey: formKeys.one(formId), meta: AS_WRITTEN, queryFn: () => call<FormShape>(`/forms/${formId}`) });

export const formVersionQuery = (formId: string, number: number) =>
  queryOptions({
    queryKey: formKeys.version(formId, number),
    queryFn: () => call<FormVersionShape>(`/forms/${formId}/versions/${number}`),
    staleTime: Infinity,
  });

/** The newest requests that came by a form. */
export const triedQuery = (formId: string) =>
  queryOptions({ queryKey: formKeys.tried(formId), meta: AS_WRITTEN, queryFn: () => call<TriedRequestShape[]>(`/forms/${formId}/tried`) });
