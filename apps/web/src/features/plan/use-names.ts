import { useQuery } from '@tanstack/react-query';
import type { ClientShape } from '@zesting/contract';
import { routesQuery } from '../../api/production';

export interface Names {
  readonly pillar: (id: string | null) => string | undefined;
  readonly format: (id: string | null) => string | undefined;
  readonly channel: (id: string | null) => string | undefined;
  /** every format that a route makes */
  readonly formats: readonly { readonly id: string; readonly name: string }[];
}

/** The names of what ids of a client's plan stand for. */
export function useNames(client: ClientShape | undefined): Names {
  const { data: routes = [] } = useQuery(routesQuery);
  const formats = [...new Map(routes.map(({ formatId, formatName }) => [formatId, formatName]))].map(([id, name]) => ({ id, name }));
  const nameIn = (list: readonly { readonly id: string; readonly name: string }[] | undefined) => (id: string | null) =>
    list?.find((one) => one.id === id)?.name;
  return { pillar: nameIn(client?.pillars), format: nameIn(formats), channel: nameIn(client?.channels), formats };
}
