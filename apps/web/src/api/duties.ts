import { queryOptions } from '@tanstack/react-query';
import type { DutiesShape, DutyDaysShape, MyDutiesShape } from '@zesting/contract';
import { call } from '../lib/api';

export const dutyKeys = {
  all: (query: string) => ['duties', 'all', query] as const,
  mine: ['duties', 'mine'],
  days: (dutyId: string) => ['duties', 'days', dutyId] as const,
} as const;

/** Duties of a client, or of all and the agency's own. @param query `clientId=…`, or nothing */
export const dutiesQuery = (query: string) =>
  queryOptions({ queryKey: dutyKeys.all(query), queryFn: () => call<DutiesShape>(`/duties?${query}`) });

/** What of duties is the viewer's to do. */
export const myDutiesQuery = queryOptions({ queryKey: dutyKeys.mine, queryFn: () => call<MyDutiesShape>('/duties/mine') });

/** What has been of a duty, and what comes. */
export const dutyDaysQuery = (dutyId: string) =>
  queryOptions({ queryKey: dutyKeys.days(dutyId), queryFn: () => call<DutyDaysShape>(`/duties/${dutyId}/days`) });
