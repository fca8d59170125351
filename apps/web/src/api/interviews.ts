import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import type { InterviewShape, InterviewsShape, QuestionSetsShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

/** What questions are about. */
export type AskedAbout = { readonly ideaId: string } | { readonly pieceId: string };

export const interviewKeys = {
  list: (query: string, asked: string) => ['interviews', 'list', query, asked] as const,
  one: (interviewId: string) => ['interviews', 'one', interviewId] as const,
  about: (id: string) => ['interviews', 'about', id] as const,
  sets: (query: string) => ['interviews', 'sets', query] as const,
} as const;

/** Interviews, a page at a time. @param asked `open` or `closed` */
export const interviewsQuery = (query: string, asked: 'open' | 'closed') =>
  infiniteQueryOptions({
    queryKey: interviewKeys.list(query, asked),
    queryFn: ({ pageParam }) => call<InterviewsShape>(`/interviews?asked=${asked}&after=${pageParam}&${query}`),
    initialPageParam: '0',
    getNextPageParam: (page) => page.next,
  });

export const interviewQuery = (interviewId: string) =>
  queryOptions({
    queryKey: interviewKeys.one(interviewId),
    meta: AS_WRITTEN,
    queryFn: () => call<InterviewShape>(`/interviews/${interviewId}`),
  });

/** What was asked about an idea or a piece, and answered. */
export const askedAboutQuery = (about: AskedAbout) =>
  queryOptions({
    queryKey: interviewKeys.about('ideaId' in about ? about.ideaId : about.pieceId),
    queryFn: () => call<InterviewShape[]>('ideaId' in about ? `/ideas/${about.ideaId}/interviews` : `/pieces/${about.pieceId}/interviews`),
  });

/** Sets of questions. @param query `clientId=…`, with `ideaId=…` or `pieceId=…` those that fit it first */
export const questionSetsQuery = (query: string) =>
  queryOptions({
    queryKey: interviewKeys.sets(query),
    meta: AS_WRITTEN,
    queryFn: () => call<QuestionSetsShape>(`/question-sets?${query}`),
  });
