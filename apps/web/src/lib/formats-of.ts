import type { RouteShape } from '@zesting/contract';

/** The formats that some routes make, each once. */
export const formatsOf = (routes: readonly RouteShape[]): readonly { readonly id: string; readonly name: string }[] => [
  ...new Map(routes.map(({ formatId, formatName }) => [formatId, { id: formatId, name: formatName }])).values(),
];
