import { queryOptions } from '@tanstack/react-query';
import type { AgreedAmountsShape, MoneyMonthShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const moneyKeys = {
  fee: (clientId: string) => ['money', 'fee', clientId] as const,
  rate: (personId: string) => ['money', 'rate', personId] as const,
  month: (month: string) => ['money', 'month', month] as const,
} as const;

/** What a client pays for a month, since when. */
export const feeQuery = (clientId: string) =>
  queryOptions({
    queryKey: moneyKeys.fee(clientId),
    meta: AS_WRITTEN,
    queryFn: () => call<AgreedAmountsShape>(`/clients/${clientId}/fee`),
  });

/** What an hour of somebody costs, since when. */
export const rateQuery = (personId: string) =>
  queryOptions({
    queryKey: moneyKeys.rate(personId),
    meta: AS_WRITTEN,
    queryFn: () => call<AgreedAmountsShape>(`/people/${personId}/rate`),
  });

/** A month of the viewer's clients in money. @param month YYYY-MM */
export const moneyQuery = (month: string) =>
  queryOptions({ queryKey: moneyKeys.month(month), queryFn: () => call<MoneyMonthShape>(`/money?month=${month}`) });
