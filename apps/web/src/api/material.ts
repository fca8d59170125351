import { queryOptions } from '@tanstack/react-query';
import type { AskMaterialShape, MaterialOfPieceShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const materialKeys = {
  of: (pieceId: string) => ['piece', pieceId, 'material'] as const,
  asking: (stepId: string) => ['asking', stepId] as const,
} as const;

/** What makers of a piece work from, and what its client was asked to bring. */
export const materialQuery = (pieceId: string) =>
  queryOptions({
    queryKey: materialKeys.of(pieceId),
    meta: AS_WRITTEN,
    queryFn: () => call<MaterialOfPieceShape>(`/pieces/${pieceId}/material`),
  });

/** What asking the client for what a step waits for begins with. */
export const askingQuery = (stepId: string) =>
  queryOptions({ queryKey: materialKeys.asking(stepId), queryFn: () => call<AskMaterialShape>(`/steps/${stepId}/asking`) });
