import { queryOptions } from '@tanstack/react-query';
import type { SavedViewsShape, ViewPage } from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const viewKeys = { of: (page: ViewPage) => ['views', page] as const } as const;

/** Ways of looking at a page that were kept under a name. */
export const viewsQuery = (page: ViewPage) =>
  queryOptions({ queryKey: viewKeys.of(page), meta: AS_WRITTEN, queryFn: () => call<SavedViewsShape>(`/views?page=${page}`) });
