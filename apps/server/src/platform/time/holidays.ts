import Holidays from 'date-holidays';
import { parseDay, type Day } from '@zesting/core';

export interface Holiday {
  readonly on: Day;
  readonly name: string;
}

interface TypedHoliday extends Holiday {
  readonly type: string;
}

const perRegionYear = new Map<string, readonly TypedHoliday[]>();

/**
 * Special days of a region in a year, of every type.
 * @param region such as `GB-ENG` or `NZ-AUK`: country, then state
 * @see date-holidays (data CC-BY-SA 3.0)
 */
function daysOfYear(region: string, year: number): readonly TypedHoliday[] {
  const key = `${region} ${year}`;
  let found = perRegionYear.get(key);
  if (!found) {
    const [country = '', state = ''] = region.split('-');
    const calendar = new Holidays(country, state);
    found = calendar.getHolidays(year, 'en').flatMap((holiday) => {
      const on = parseDay(holiday.date.slice(0, 10));
      return on ? [{ on, name: holiday.name, type: holiday.type }] : [];
    });
    perRegionYear.set(key, found);
  }
  return found;
}

function daysOf(region: string, from: number, to: number, types: readonly string[]): readonly Holiday[] {
  const all: Holiday[] = [];
  for (let year = from; year <= to; year++)
    for (const { on, name, type } of daysOfYear(region, year)) if (types.includes(type)) all.push({ on, name });
  return all;
}

/** Public holidays of a region over the years from `from` to `to`, both included. Observances, optional and school days never count. */
export const publicHolidays = (region: string, from: number, to: number): readonly Holiday[] => daysOf(region, from, to, ['public']);

/** Days that are observed in a region and are days of work: what a calendar may be reminded of. */
export const observances = (region: string, from: number, to: number): readonly Holiday[] =>
  daysOf(region, from, to, ['observance', 'optional']);

let known: readonly Region[] | undefined;

export interface Region {
  readonly code: string;
  readonly name: string;
}

/** Countries and their states whose public holidays are known, by name: `NZ-AUK` is "New Zealand, Auckland". */
export function regions(): readonly Region[] {
  known ??= readRegions();
  return known;
}

function readRegions(): Region[] {
  const calendar = new Holidays();
  const all = Object.entries(calendar.getCountries('en')).flatMap(([country, name]) => [
    { code: country, name },
    ...Object.entries(calendar.getStates(country, 'en') ?? {})
      .filter(([state]) => /^[A-Z0-9]{1,4}$/.test(state))
      .map(([state, stateName]) => ({ code: `${country}-${state}`, name: `${name}, ${stateName}` })),
  ]);
  return all.sort((a, b) => a.name.localeCompare(b.name));
}
