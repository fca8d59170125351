import { Column, ForeignKey, PrimaryColumn, type ColumnOptions } from 'typeorm';
import type { EntityClass } from '../feature.js';

/** Instants come as dates from one way of reading and as text from another. */
export const isoText = {
  to: (value: string | null) => value,
  from: (value: Date | string | null) => (value instanceof Date ? value.toISOString() : value),
};

/** An instant, as ISO 8601 text with Z. */
export const InstantColumn = (options: ColumnOptions = {}): PropertyDecorator =>
  Column({ type: 'timestamptz', transformer: isoText, ...options });

/** A day, as `YYYY-MM-DD`. */
export const DayColumn = (options: ColumnOptions = {}): PropertyDecorator => Column({ type: 'date', ...options });

export const JsonColumn = (options: ColumnOptions = {}): PropertyDecorator => Column({ type: 'jsonb', ...options });
export const IdColumn = (options: ColumnOptions = {}): PropertyDecorator => Column({ type: 'uuid', ...options });
export const TextColumn = (options: ColumnOptions = {}): PropertyDecorator => Column({ type: 'text', ...options });
export const IntColumn = (options: ColumnOptions = {}): PropertyDecorator => Column({ type: 'int', ...options });
export const BoolColumn = (options: ColumnOptions = {}): PropertyDecorator => Column({ type: 'boolean', ...options });
export const BigIntColumn = (options: ColumnOptions = {}): PropertyDecorator => Column({ type: 'bigint', ...options });
/** A time of day, as `HH:MM`. */
export const TimeColumn = (options: ColumnOptions = {}): PropertyDecorator => Column({ type: 'time', ...options });
/** The key of a row that is known by an id of its own. */
export const IdKey = (): PropertyDecorator => PrimaryColumn('uuid', { generated: 'uuid' });

/** For a column that another feature derives and keeps: neither read with the row nor written with it. */
export const DERIVED = { select: false, insert: false, update: false } as const satisfies ColumnOptions;

/**
 * A foreign key, named in the database. The other entity is told by its name, so that features need not import each other's tables.
 * @param entity the name of the class
 */
export const Refers = (entity: string, name: string, options: { onDelete?: 'CASCADE' } = {}): PropertyDecorator =>
  ForeignKey(entity, { name, ...options });

const made = new Map<EntityClass, string[]>();

/** What a table has that TypeORM cannot say (an index over an expression, a generated column), as SQL to be run once it is made. */
export const Made =
  (sql: string): ClassDecorator =>
  (target) =>
    void made.set(target, [sql, ...(made.get(target) ?? [])]);

/** All that was said of an entity by `Made`, in the order in which it stands there. */
export const madeFor = (entity: EntityClass): readonly string[] => made.get(entity) ?? [];

/** The condition that a column holds one of a list's words. */
export const oneOf = (column: string, words: readonly string[]): string => `${column} in (${words.map((word) => `'${word}'`).join(', ')})`;
