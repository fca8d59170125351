import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { LibraryShape, OfferedTagSetsShape, TagSetsShape, OfferedPhrasesShape, PhrasesShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const libraryKeys = {
  tagSets: (clientId: string) => ['tag-sets', clientId] as const,
  tagSetsFor: (pieceId: string) => ['tag-sets', 'piece', pieceId] as const,
  phrases: (clientId: string) => ['phrases', clientId] as const,
  phrasesFor: (pieceId: string) => ['phrases', 'piece', pieceId] as const,
  find: (asked: string) => ['library', asked] as const,
} as const;

/** A client's tag sets, with how often they were used. */
export const tagSetsQuery = (clientId: string) =>
  queryOptions({
    queryKey: libraryKeys.tagSets(clientId),
    meta: AS_WRITTEN,
    queryFn: () => call<TagSetsShape>(`/clients/${clientId}/tag-sets`),
  });

/** The sets that are offered for a piece, those meant for it first. */
export const tagSetsForQuery = (pieceId: string) =>
  queryOptions({
    queryKey: libraryKeys.tagSetsFor(pieceId),
    meta: AS_WRITTEN,
    queryFn: () => call<OfferedTagSetsShape>(`/pieces/${pieceId}/tag-sets`),
  });

/** Pieces by what they say and where they stand, a page after the other. @param asked the query without where it goes on */
export const libraryQuery = (asked: string) =>
  infiniteQueryOptions({
    queryKey: libraryKeys.find(asked),
    queryFn: ({ pageParam }) => call<LibraryShape>(`/library?${[asked, pageParam ? `cursor=${pageParam}` : ''].filter(Boolean).join('&')}`),
    initialPageParam: '',
    getNextPageParam: ({ next }) => next ?? undefined,
    placeholderData: keepPreviousData,
  });

/** A client's openings, closings, calls to action and texts to start from. */
export const phrasesQuery = (clientId: string) =>
  queryOptions({
    queryKey: libraryKeys.phrases(clientId),
    meta: AS_WRITTEN,
    queryFn: () => call<PhrasesShape>(`/clients/${clientId}/phrases`),
  });

/** The phrases that are offered where a piece is written. */
export const phrasesForQuery = (pieceId: string) =>
  queryOptions({
    queryKey: libraryKeys.phrasesFor(pieceId),
    meta: AS_WRITTEN,
    queryFn: () => call<OfferedPhrasesShape>(`/pieces/${pieceId}/phrases`),
  });
