import { queryOptions } from '@tanstack/react-query';
import type { GuidelinesShape, PieceGuidelinesShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const guidelineKeys = {
  of: (query: string) => ['guidelines', query] as const,
  ofPiece: (pieceId: string) => ['piece', pieceId, 'guidelines'] as const,
} as const;

/** @param query which client's, as `useClients` says it */
export const guidelinesQuery = (query: string) =>
  queryOptions({ queryKey: guidelineKeys.of(query), meta: AS_WRITTEN, queryFn: () => call<GuidelinesShape>(`/guidelines?${query}`) });

/** What holds for a piece. */
export const pieceGuidelinesQuery = (pieceId: string) =>
  queryOptions({
    queryKey: guidelineKeys.ofPiece(pieceId),
    meta: AS_WRITTEN,
    queryFn: () => call<PieceGuidelinesShape>(`/pieces/${pieceId}/guidelines`),
  });
