import { queryOptions } from '@tanstack/react-query';
import type { EvergreenShape, EvergreenStockShape } from '@zesting/contract';
import { call } from '../lib/api';

export const evergreenKeys = {
  client: (clientId: string) => ['evergreen', 'client', clientId] as const,
  piece: (pieceId: string) => ['evergreen', 'piece', pieceId] as const,
} as const;

/** A client's pieces that last, by channel. */
export const stockQuery = (clientId: string) =>
  queryOptions({ queryKey: evergreenKeys.client(clientId), queryFn: () => call<EvergreenStockShape>(`/clients/${clientId}/evergreen`) });

/** Whether a piece lasts, and when it may go out again. */
export const evergreenQuery = (pieceId: string) =>
  queryOptions({ queryKey: evergreenKeys.piece(pieceId), queryFn: () => call<EvergreenShape>(`/pieces/${pieceId}/evergreen`) });
