import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import type {
  AlongsShape,
  MakeSpinOffsBody,
  MoveAlongBody,
  SpinOffPreviewShape,
  SpinOffsShape,
  SpinOffTreeShape,
  SpreadOutlookShape,
  SpreadsShape,
} from '@zesting/contract';
import { call } from '../lib/api';

export const spinOffKeys = {
  of: (pieceId: string) => ['spin-offs', pieceId] as const,
  preview: (pieceId: string, body: MakeSpinOffsBody) => ['spin-offs', pieceId, 'preview', body] as const,
  along: (pieceId: string, body: MoveAlongBody) => ['spin-offs', pieceId, 'along', body] as const,
  tree: (query: string) => ['spin-offs', 'tree', query] as const,
  spreads: (clientId: string) => ['spreads', clientId] as const,
  outlook: (spreadId: string, on: string) => ['spreads', spreadId, 'outlook', on] as const,
} as const;

/** What a piece was made from, and what was made from it. */
export const spinOffsQuery = (pieceId: string) =>
  queryOptions({ queryKey: spinOffKeys.of(pieceId), queryFn: () => call<SpinOffsShape>(`/pieces/${pieceId}/spin-offs`) });

/** What would be made; reckoned when it is asked. */
export const spinOffPreviewQuery = (pieceId: string, body: MakeSpinOffsBody) =>
  queryOptions({
    queryKey: spinOffKeys.preview(pieceId, body),
    queryFn: () => call<SpinOffPreviewShape>(`/pieces/${pieceId}/spin-offs/preview`, { method: 'POST', body }),
    placeholderData: keepPreviousData,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });

/** Where what was made from a piece would go if it moved along. */
export const alongQuery = (pieceId: string, body: MoveAlongBody) =>
  queryOptions({
    queryKey: spinOffKeys.along(pieceId, body),
    queryFn: () => call<AlongsShape>(`/pieces/${pieceId}/spin-offs/along/preview`, { method: 'POST', body }),
    gcTime: 0,
  });

/** Sources with what was made from them, a page after the other. @param asked further words of the query */
export const treeQuery = (query: string, asked: string) =>
  infiniteQueryOptions({
    queryKey: spinOffKeys.tree(`${query} ${asked}`),
    queryFn: ({ pageParam }) =>
      call<SpinOffTreeShape>(`/spin-offs?${[query, asked, pageParam ? `cursor=${pageParam}` : ''].filter(Boolean).join('&')}`),
    initialPageParam: '',
    getNextPageParam: ({ next }) => next ?? undefined,
  });

/** A client's spreads. */
export const spreadsQuery = (clientId: string) =>
  queryOptions({ queryKey: spinOffKeys.spreads(clientId), queryFn: () => call<SpreadsShape>(`/clients/${clientId}/spreads`) });

/** What a spread would come to for a source on a day. */
export const outlookQuery = (spreadId: string, on: string) =>
  queryOptions({
    queryKey: spinOffKeys.outlook(spreadId, on),
    queryFn: () => call<SpreadOutlookShape>(`/spreads/${spreadId}/outlook${on ? `?on=${on}` : ''}`),
    placeholderData: keepPreviousData,
  });
