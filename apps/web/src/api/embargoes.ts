import { queryOptions } from '@tanstack/react-query';
import type { EmbargoShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const embargoKeys = { piece: (pieceId: string) => ['embargo', pieceId] as const } as const;

/** Between which days a piece may be out. */
export const embargoQuery = (pieceId: string) =>
  queryOptions({ queryKey: embargoKeys.piece(pieceId), meta: AS_WRITTEN, queryFn: () => call<EmbargoShape>(`/pieces/${pieceId}/embargo`) });
