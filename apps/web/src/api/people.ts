import { queryOptions } from '@tanstack/react-query';
import type { CandidateShape, MyStepsShape, PersonDutyShape, PersonPageShape, PersonRow } from '@zesting/contract';
import { call } from '../lib/api';

export const peopleKeys = {
  all: ['people'],
  one: (personId: string) => ['person', personId] as const,
  duties: (personId: string) => ['person', personId, 'duties'] as const,
  mySteps: ['steps', 'mine'],
  candidates: (stepId: string) => ['candidates', stepId] as const,
} as const;

export const peopleQuery = queryOptions({ queryKey: peopleKeys.all, queryFn: () => call<PersonRow[]>('/people') });

export const personQuery = (personId: string) =>
  queryOptions({ queryKey: peopleKeys.one(personId), queryFn: () => call<PersonPageShape>(`/people/${personId}`) });

/** Duties that somebody does or stands in for. */
export const personDutiesQuery = (personId: string) =>
  queryOptions({ queryKey: peopleKeys.duties(personId), queryFn: () => call<PersonDutyShape[]>(`/people/${personId}/duties`) });

/** The steps of whoever is signed in. */
export const myStepsQuery = queryOptions({ queryKey: peopleKeys.mySteps, queryFn: () => call<MyStepsShape>('/steps/mine') });

/** Who could do a step, and how it would end with each. */
export const candidatesQuery = (stepId: string) =>
  queryOptions({
    queryKey: peopleKeys.candidates(stepId),
    queryFn: () => call<CandidateShape[]>(`/steps/${stepId}/candidates`),
    staleTime: 0,
  });
