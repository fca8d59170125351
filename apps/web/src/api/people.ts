import { queryOptions } from '@tanstack/react-query';
import type {
  AwayShape,
  CandidateShape,
  DelaysShape,
  MyStepsShape,
  PersonDutyShape,
  PersonPageShape,
  PersonRow,
  TimeOffBody,
} from '@zesting/contract';
import { call } from '../lib/api';

export const peopleKeys = {
  all: ['people'],
  one: (personId: string) => ['person', personId] as const,
  duties: (personId: string) => ['person', personId, 'duties'] as const,
  mySteps: ['steps', 'mine'],
  away: (personId: string, off: TimeOffBody) => ['person', personId, 'away', off] as const,
  candidates: (stepId: string) => ['candidates', stepId] as const,
  delays: (stepId: string) => ['candidates', stepId, 'delays'] as const,
} as const;

export const peopleQuery = queryOptions({ queryKey: peopleKeys.all, queryFn: () => call<PersonRow[]>('/people') });

export const personQuery = (personId: string) =>
  queryOptions({ queryKey: peopleKeys.one(personId), queryFn: () => call<PersonPageShape>(`/people/${personId}`) });

/** Duties that somebody does or stands in for. */
export const personDutiesQuery = (personId: string) =>
  queryOptions({ queryKey: peopleKeys.duties(personId), queryFn: () => call<PersonDutyShape[]>(`/people/${personId}/duties`) });

/** What an absence would make late; reckoned when it is asked, and not kept. */
export const awayQuery = (personId: string, off: TimeOffBody) =>
  queryOptions({
    queryKey: peopleKeys.away(personId, off),
    queryFn: () => call<AwayShape>(`/people/${personId}/away/preview`, { method: 'POST', body: off }),
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });

/** The steps of whoever is signed in. */
export const myStepsQuery = queryOptions({ queryKey: peopleKeys.mySteps, queryFn: () => call<MyStepsShape>('/steps/mine') });

/** What else becomes late with each who could do a step. */
export const delaysQuery = (stepId: string) =>
  queryOptions({ queryKey: peopleKeys.delays(stepId), queryFn: () => call<DelaysShape[]>(`/steps/${stepId}/delays`), staleTime: 0 });

/** Who could do a step, and how it would end with each. */
export const candidatesQuery = (stepId: string) =>
  queryOptions({
    queryKey: peopleKeys.candidates(stepId),
    queryFn: () => call<CandidateShape[]>(`/steps/${stepId}/candidates`),
    staleTime: 0,
  });
