import { queryOptions } from '@tanstack/react-query';
import type { TopicsShape } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const topicKeys = { of: (clientId: string) => ['topics', clientId] as const } as const;

/** What a client's content is about, and what was made of it. */
export const topicsQuery = (clientId: string) =>
  queryOptions({ queryKey: topicKeys.of(clientId), meta: AS_WRITTEN, queryFn: () => call<TopicsShape>(`/clients/${clientId}/topics`) });
