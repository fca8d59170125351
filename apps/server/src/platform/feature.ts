import type { Type } from '@nestjs/common';
import { getMetadataArgsStorage } from 'typeorm';
import type { FoundShape } from '@zesting/contract';
import type { Policy } from './access/policies.js';
import type { Viewer } from './access/access.js';
import type { App } from './app.js';

// eslint-disable-next-line @typescript-eslint/no-unsafe-function-type -- TypeORM's own type for entity classes
export type EntityClass = Function;

/** What is looked for, made ready for SQL. */
export interface Looked {
  readonly viewer: Viewer;
  /** the words, each as a pattern for `like` in plain letters */
  readonly patterns: readonly string[];
  /** the clients looked in: those of the viewer, or the one whose code was typed */
  readonly clientIds: readonly string[];
  /** the number that was typed, where that is all */
  readonly number: number | null;
  /** so many are enough */
  readonly limit: number;
}

/** The table of an entity. Throws on a class that is none. */
export function tableOf(entity: EntityClass): string {
  const name = getMetadataArgsStorage().tables.find(({ target }) => target === entity)?.name;
  if (!name) throw new Error(`${entity.name} is no entity`);
  return name;
}

/** A kind of thing that can be found by name from anywhere. */
export interface FindSource {
  /** where it stands among the others, from 0 */
  readonly order: number;
  /** found by everybody in their reach, or by those who manage */
  readonly by: 'everybody' | 'managers';
  readonly find: (app: App, looked: Looked) => Promise<FoundShape[]>;
}

/** All that a feature brings: the one declaration that the application is made of. See docs/adding-a-feature.md. */
export interface Feature {
  readonly name: string;
  /** its controllers and jobs */
  readonly module: Type<unknown>;
  /** the tables that it alone writes */
  readonly entities: readonly EntityClass[];
  /** tables of others in which it keeps columns up to date that it derives; it makes and removes no rows there */
  readonly derives?: readonly string[];
  /** who may do what; names are the whole application's */
  readonly policies: Readonly<Record<string, Policy>>;
  /** by kind of thing: SQL for whose it is, `$1` its id, with the columns client_id, piece_id, request_id; a row for each who shares it */
  readonly owners?: Readonly<Record<string, string>>;
  readonly finds?: readonly FindSource[];
}

/** The condition that a text in plain letters holds every pattern; their values begin at `$first`. */
export const holdsEvery = (column: string, patterns: readonly string[], first: number): string =>
  patterns.map((_, index) => `${column} like plain_letters($${index + first})`).join(' and ') || 'true';

/** The features that an application is made of, joined; two that claim the same name stop the start. */
export class Features {
  readonly policies: ReadonlyMap<string, Policy>;
  readonly owners: ReadonlyMap<string, string>;
  readonly finds: readonly FindSource[];

  constructor(readonly list: readonly Feature[]) {
    this.policies = joined(list, 'policy', (feature) => feature.policies);
    this.owners = joined(list, 'owner', (feature) => feature.owners ?? {});
    joined(list, 'table', (feature) => Object.fromEntries(feature.entities.map((entity) => [tableOf(entity), entity])));
    this.finds = list.flatMap((feature) => feature.finds ?? []).sort((a, b) => a.order - b.order);
  }
}

function joined<T>(list: readonly Feature[], what: string, of: (feature: Feature) => Readonly<Record<string, T>>): Map<string, T> {
  const all = new Map<string, T>();
  for (const feature of list)
    for (const [name, value] of Object.entries(of(feature))) {
      if (all.has(name)) throw new Error(`${feature.name} declares the ${what} ${name}, which another feature has`);
      all.set(name, value);
    }
  return all;
}
