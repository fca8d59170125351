import { queryOptions } from '@tanstack/react-query';
import type { PageAnswersShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

/** So often, and so many times, is looked whether pages answered that were only just written. */
const LOOK_MS = 2_000;
const LOOKS = 5;

/**
 * What the pages answered that a piece leads to. Those that were only just written are asked within a moment: it is looked for them again.
 * @param addresses what its saved content leads to
 */
export const pageAnswersQuery = (pieceId: string, contentVersion: number, addresses: readonly string[]) =>
  queryOptions({
    queryKey: ['page-answers', pieceId, contentVersion],
    meta: AS_WRITTEN,
    queryFn: () => call<PageAnswersShape>(`/pieces/${pieceId}/links`),
    enabled: addresses.length > 0,
    refetchInterval: ({ state: { data, dataUpdateCount } }) =>
      dataUpdateCount < LOOKS && addresses.some((address) => !data?.rows.some((row) => row.address === address)) ? LOOK_MS : false,
  });

/** Asks the pages that a piece leads to, now. */
export const askPages = (pieceId: string): Promise<PageAnswersShape> =>
  call<PageAnswersShape>(`/pieces/${pieceId}/links`, { method: 'POST', body: {} });
