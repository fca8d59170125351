import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { FitsShape, GoingOutShape, GoingOutSoonShape, HandOutShape, PackShape } from '@zesting/contract';
import { call } from '../lib/api';

export const goingOutKeys = {
  of: (query: string) => ['going-out', query] as const,
  soon: (query: string) => ['going-out', 'soon', query] as const,
  fits: (pieceId: string) => ['fits', pieceId] as const,
  pack: (clientId: string, span: string) => ['pack', clientId, span] as const,
  handOut: (placementId: string) => ['hand-out', placementId] as const,
} as const;

/** What goes out today and over the next seven days. */
export const goingOutQuery = (query: string) =>
  queryOptions({
    queryKey: goingOutKeys.of(query),
    queryFn: () => call<GoingOutShape>(`/going-out?${query}`),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000, // times pass
  });

/** The same of today and the next three days, in numbers. */
export const goingOutSoonQuery = (query: string) =>
  queryOptions({ queryKey: goingOutKeys.soon(query), queryFn: () => call<GoingOutSoonShape>(`/going-out/soon?${query}`) });

/** What is copied out by hand of a placement. */
export const handOutQuery = (placementId: string) =>
  queryOptions({
    queryKey: goingOutKeys.handOut(placementId),
    queryFn: () => call<HandOutShape>(`/placements/${placementId}/hand-out`),
  });

/** What a client's pack of some days holds. @param span `from=…&to=…` */
export const packQuery = (clientId: string, span: string) =>
  queryOptions({
    queryKey: goingOutKeys.pack(clientId, span),
    queryFn: () => call<PackShape>(`/clients/${clientId}/pack?${span}`),
    retry: false,
  });

/** What of a piece does not fit on its channels. */
export const fitsQuery = (pieceId: string) =>
  queryOptions({ queryKey: goingOutKeys.fits(pieceId), queryFn: () => call<FitsShape>(`/pieces/${pieceId}/fits`) });
