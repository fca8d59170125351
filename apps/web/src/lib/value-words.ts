import { parseDay } from '@zesting/core';
import { dayWords } from './format';

/** Any stored value in words, for the record of what changed and for comparing two states. */
export function valueWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return parseDay(value) ? dayWords(value) : value;
  if (typeof value === 'number') return String(value);
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map(itemWords).join(', ');
  if (typeof value === 'object') return itemWords(value);
  return typeof value;
}

/** What an entry of a list is called, and what else is said of it. */
function itemWords(item: unknown): string {
  if (typeof item !== 'object' || item === null) return valueWords(item);
  const { id: _id, key: _key, ...facts } = item as Record<string, unknown>; // any plain object
  const name = ['name', 'title', 'client', 'code'].map((key) => facts[key]).find((found) => typeof found === 'string');
  const rest = Object.entries(facts)
    .filter(([key, value]) => value !== name && value !== null && value !== false && value !== '' && !/Id$|Ids$/.test(key))
    .map(([key, value]) => (value === true ? fieldWords(key) : `${fieldWords(key)} ${valueWords(value)}`));
  if (typeof name !== 'string') return rest.join(', ');
  return rest.length === 0 ? name : `${name} (${rest.join(', ')})`;
}

/** "usual time" of `usualTime`. */
export const fieldWords = (key: string): string =>
  key
    .replace(/([A-Z])/g, ' $1')
    .toLowerCase()
    .replace(/ (on|at)$/, '')
    .replace('weekly minutes', 'minutes a weekday');
