import { queryOptions } from '@tanstack/react-query';
import type { GuidelinesShape, PieceGuidelinesShape } from '@zesting/contract';
import { call } from '../lib/api';

export const guidelineKeys = {
  of: (query: string) => ['guidelines', query] as const,
  ofPiece: (pieceId: string) => ['piece', pieceId, 'guidelines'] as const,
} as const;

/** @param query which client's, as `useClients` says it */
export const guidelinesQuery = (query: string) =>
  queryOptions({ queryKey: guidelineKeys.of(query), queryFn: () => call<GuidelinesShape>(`/guidelines?${query}`) });

/** What holds for a piece. */
export const pieceGuidelinesQuery = (pieceId: string) =>
  queryOptions({ queryKey: guidelineKeys.ofPiece(pieceId), queryFn: () => call<PieceGuidelinesShape>(`/pieces/${pieceId}/guidelines`) });
