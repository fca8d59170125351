import { isZone, parseDay, parseTimeOfDay } from '@zesting/core';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsInt, Max, Min, ValidateBy, ValidateIf, type ValidationOptions } from 'class-validator';

/** The first and the last day that may be typed anywhere: what lies outside is a slip of the hand. */
export const FIRST_DAY = '1990-01-01';
export const LAST_DAY = '2199-12-31';

/** What the page of a visitor is headed with: the client, and the agency that serves it. */
export class VisitedShape {
  clientCode: string;
  clientName: string;
  clientColour: number;
  /** where its logo is; null without one */
  clientMark: string | null;
  agencyName: string;
  /** `#rrggbb`; null without one */
  agencyAccent: string | null;
  /** where its mark is; null without one */
  agencyMark: string | null;
}

/** Whether a value is a day of the calendar, `YYYY-MM-DD`, between 1990 and 2199. */
export const isDay = (value: unknown): value is string =>
  typeof value === 'string' && parseDay(value) !== undefined && value >= FIRST_DAY && value <= LAST_DAY;

const rule = (name: string, holds: (value: unknown) => boolean, options?: ValidationOptions): PropertyDecorator =>
  ValidateBy({ name, validator: { validate: holds, defaultMessage: () => `$property breaks the rule ${name}` } }, options);

/** A number that is no less than another one of the same body, where both are told. */
export const IsNotUnder = (other: string): PropertyDecorator =>
  ValidateBy({
    name: 'isNotUnder',
    constraints: [other],
    validator: {
      validate: (value, told) => {
        const least = (told?.object as Readonly<Record<string, unknown>> | undefined)?.[other]; // a body, whatever its class
        return typeof value !== 'number' || typeof least !== 'number' || value >= least;
      },
      defaultMessage: () => `$property is less than ${other}`,
    },
  });

/** A day of the calendar: 31 February is none. */
export const IsDay = (options?: ValidationOptions): PropertyDecorator => rule('isDay', isDay, options);

/** A time of day, `HH:MM`. */
export const IsTimeOfDay = (options?: ValidationOptions): PropertyDecorator =>
  rule('isTimeOfDay', (value) => typeof value === 'string' && parseTimeOfDay(value) !== undefined, options);

/** A zone that IANA knows. */
export const IsZone = (options?: ValidationOptions): PropertyDecorator =>
  rule('isZone', (value) => typeof value === 'string' && isZone(value), options);

/** Text that says something: not empty, not only spaces. */
export const IsNotBlank = (options?: ValidationOptions): PropertyDecorator =>
  rule('isNotBlank', (value) => typeof value === 'string' && value.trim() !== '', options);

/** May be left out, but not null: the other rules are asked only when something was sent. */
export const Optional = (): PropertyDecorator => ValidateIf((_, value) => value !== undefined);

/** May be left out or null, which takes the value away. */
export const OptionalOrNull = (): PropertyDecorator => ValidateIf((_, value) => value !== undefined && value !== null);

/** May be null, which says *none*; must be sent. */
export const OrNull = (): PropertyDecorator => ValidateIf((_, value) => value !== null);

/** Minutes of work on Monday to Sunday. */
export const IsWeek = (): PropertyDecorator => (target, key) => {
  IsArray()(target, key);
  ArrayMinSize(7)(target, key);
  ArrayMaxSize(7)(target, key);
  IsInt({ each: true })(target, key);
  Min(0, { each: true })(target, key);
  Max(1440, { each: true })(target, key);
};
