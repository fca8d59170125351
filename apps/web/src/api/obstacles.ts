import { queryOptions } from '@tanstack/react-query';
import type { ObstacleRowsShape, ObstaclesShape } from '@zesting/contract';
import { call } from '../lib/api';

export const obstacleKeys = {
  of: (pieceId: string) => ['piece', pieceId, 'obstacles'] as const,
  open: (query: string) => ['obstacles', query] as const,
} as const;

/** What stands in the way of a piece, and what did. */
export const obstaclesQuery = (pieceId: string) =>
  queryOptions({ queryKey: obstacleKeys.of(pieceId), queryFn: () => call<ObstaclesShape>(`/pieces/${pieceId}/obstacles`) });

/** What stands in the way anywhere in the viewer's reach. @param query which client's, as `useClients` says it */
export const openObstaclesQuery = (query: string) =>
  queryOptions({ queryKey: obstacleKeys.open(query), queryFn: () => call<ObstacleRowsShape>(`/obstacles?${query}`) });
