import { Column, type ColumnOptions } from 'typeorm';

const isoText = {
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
