import { queryOptions } from '@tanstack/react-query';
import type { GoalsShape } from '@zesting/contract';
import { call } from '../lib/api';

export const goalKeys = { of: (clientId: string) => ['goals', clientId] as const } as const;

/** What a client is to get to, how it stands, and what is known of its strategy. */
export const goalsQuery = (clientId: string) =>
  queryOptions({ queryKey: goalKeys.of(clientId), queryFn: () => call<GoalsShape>(`/clients/${clientId}/goals`) });
