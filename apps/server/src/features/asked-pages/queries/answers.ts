import type { PageAnswerShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

/** What pages answered when they were asked last; those that were never asked are not among them. */
export const askedPages = (app: App, addresses: readonly string[]): Promise<PageAnswerShape[]> =>
  app.read<PageAnswerShape>(
    'select address, status, asked_at as "askedAt" from asked_pages where address = any($1) and asked_at is not null order by address',
    [[...new Set(addresses)]],
  );

/** The same by address, as core looks at it. */
export async function pageAnswers(app: App, addresses: readonly string[]): Promise<ReadonlyMap<string, number | null>> {
  if (addresses.length === 0) return new Map();
  return new Map((await askedPages(app, addresses)).map(({ address, status }) => [address, status]));
}
