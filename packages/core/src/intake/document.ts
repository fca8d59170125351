import type { FormContent } from './faults.js';
import type { Sorted } from './sorting.js';

/** The mark of a form written to a file; it changes when the shape does. */
export const FORM_FORMAT = 'zesting-form-1';

/** What a rule sets, by names: ids mean nothing elsewhere. */
export interface SortedByNames {
  readonly route?: string;
  readonly pillar?: string;
  readonly channels?: readonly string[];
  /** only `lead_person` travels: other people are not known elsewhere */
  readonly owner?: 'lead_person';
}

/** A form as a file: what it says and asks, with routes, pillars and channels by their names. */
export interface FormDocument extends Omit<FormContent, 'routeId' | 'rules'> {
  readonly format: typeof FORM_FORMAT;
  readonly route: string | null;
  readonly rules: readonly { readonly when?: FormContent['rules'][number]['when']; readonly takes: SortedByNames }[];
}

/** Names by id and ids by name, of routes, pillars and channels. */
export interface FormNames {
  readonly routes: ReadonlyMap<string, string>;
  readonly pillars: ReadonlyMap<string, string>;
  readonly channels: ReadonlyMap<string, string>;
}

const turned = (names: ReadonlyMap<string, string>): Map<string, string> =>
  new Map([...names].map(([id, name]) => [name.toLowerCase(), id]));

/** A form as it is written to a file. What has no name is left out. */
export function documentOf({ routeId, rules, ...rest }: FormContent, names: FormNames): FormDocument {
  return {
    format: FORM_FORMAT,
    ...rest,
    route: (routeId && names.routes.get(routeId)) ?? null,
    rules: rules.map(({ when, takes }) => ({ ...(when === undefined ? {} : { when }), takes: namesOf(takes, names) })),
  };
}

function namesOf({ routeId, pillarId, channelIds, ownerId }: Sorted, names: FormNames): SortedByNames {
  const [route, pillar] = [routeId && names.routes.get(routeId), pillarId && names.pillars.get(pillarId)];
  const channels = channelIds?.flatMap((id) => names.channels.get(id) ?? []) ?? [];
  return {
    ...(route ? { route } : {}),
    ...(pillar ? { pillar } : {}),
    ...(channels.length > 0 ? { channels } : {}),
    ...(ownerId === 'lead_person' ? { owner: 'lead_person' } : {}),
  };
}

/**
 * A form as it is read from a file.
 * @returns the form, and the names of routes, pillars and channels that are not known here: they are left open
 */
export function readDocument(
  { format: _, route, rules, ...rest }: FormDocument,
  names: FormNames,
): { content: FormContent; unknown: string[] } {
  const [routes, pillars, channels] = [turned(names.routes), turned(names.pillars), turned(names.channels)];
  const unknown = new Set<string>();
  const idOf = (ids: ReadonlyMap<string, string>, name: string): string | undefined => {
    const id = ids.get(name.toLowerCase());
    if (id === undefined) unknown.add(name);
    return id;
  };
  const taken = (takes: SortedByNames): Sorted => {
    const routeId = takes.route === undefined ? undefined : idOf(routes, takes.route);
    const pillarId = takes.pillar === undefined ? undefined : idOf(pillars, takes.pillar);
    const channelIds = takes.channels?.flatMap((name) => idOf(channels, name) ?? []) ?? [];
    return {
      ...(routeId === undefined ? {} : { routeId }),
      ...(pillarId === undefined ? {} : { pillarId }),
      ...(channelIds.length > 0 ? { channelIds } : {}),
      ...(takes.owner === undefined ? {} : { ownerId: takes.owner }),
    };
  };
  const content: FormContent = {
    ...rest,
    routeId: route === null ? null : (idOf(routes, route) ?? null),
    rules: rules.map(({ when, takes }) => ({ ...(when === undefined ? {} : { when }), takes: taken(takes) })),
  };
  return { content, unknown: [...unknown] };
}
