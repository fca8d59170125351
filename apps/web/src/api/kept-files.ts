import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { KeptFilesShape, OfferedKeptFilesShape, UploadShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

/** Kept files by words, kind and whether they are to be renewed. @param asked the query */
export const keptFilesQuery = (asked: string) =>
  queryOptions({
    queryKey: ['kept-files', asked],
    meta: AS_WRITTEN,
    queryFn: () => call<KeptFilesShape>(`/kept-files?${asked}`),
    placeholderData: keepPreviousData,
  });

/** The kept files of its client, for a piece. */
export const keptFilesForQuery = (pieceId: string, words: string) =>
  queryOptions({
    queryKey: ['kept-files', 'piece', pieceId, words],
    meta: AS_WRITTEN,
    queryFn: () => call<OfferedKeptFilesShape>(`/pieces/${pieceId}/kept-files?${new URLSearchParams({ words })}`),
    placeholderData: keepPreviousData,
  });

/** Takes one into a piece. @returns the piece's own file */
export const takeKeptFile = (pieceId: string, keptFileId: string, into: 'content' | 'material'): Promise<UploadShape> =>
  call<UploadShape>(`/pieces/${pieceId}/kept-files/${keptFileId}`, { method: 'POST', body: { into } });
