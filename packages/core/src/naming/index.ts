import slug from 'slug';
import { dayInWords, type Day } from '../time/index.js';

/** What a file's name is made of. */
export interface NamedFile {
  /** the day it is published; null sorts last */
  readonly on: Day | null;
  readonly clientCode: string;
  readonly title: string;
  /** without a dot, such as `png` */
  readonly extension: string;
}

/** The longest title in a name, in characters: whole paths stay below the 255 bytes that file systems allow (common practice). */
const TITLE_LIMIT = 60;

/** Lower-case ASCII letters, digits and hyphens: what every file system and URL takes. What cannot be written so falls away. */
export function plainTitle(title: string): string {
  const words = title.replace(/[’']/g, '').replace(/[^\p{L}\p{M}\p{N}]+/gu, ' ');
  return slug(words, { fallback: false }).slice(0, TITLE_LIMIT).replace(/-+$/, '') || 'untitled';
}

/**
 * Names files so that they sort in publishing order: zero-padded sequence, date, client code, title.
 * @returns names in the order of `files`, unique without regard to case
 */
export function fileNames(files: readonly NamedFile[]): string[] {
  const width = Math.max(2, String(files.length).length);
  const order = files
    .map((file, index) => ({ index, on: file.on ?? '9999-12-31' }))
    .sort((a, b) => a.on.localeCompare(b.on) || a.index - b.index);
  const sequence = new Map(order.map(({ index }, position) => [index, position + 1]));
  return files.map((file, index) => {
    const number = String(sequence.get(index) ?? 0).padStart(width, '0');
    const parts = [number, file.on ?? 'undated', file.clientCode.toUpperCase(), plainTitle(file.title)];
    return `${parts.join('_')}.${file.extension.toLowerCase().replace(/[^a-z0-9]/g, '')}`;
  });
}

/** What the plan of a client's month is called: names of one client sort by time. @param month `YYYY-MM` */
export const nameOfMonth = (clientCode: string, month: string): string => `${clientCode.toUpperCase()}-${month}`;

/** Whether a text is an id as rows have them: a UUID in lower case. @see RFC 9562 */
export const isId = (text: string): boolean => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(text);

/** What a piece is called until somebody gives it a title: by its format, and its day if it has one. */
export const untitledPiece = (format: string, on: Day | null): string =>
  on === null ? `${format} without a title` : `${format} for ${dayInWords(on)}`;

const A_DAY_IN_WORDS = /^(Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day \d{1,2} [A-Z][a-z]+ \d{4}$/;

/** Whether a piece is still called by its format and day, whatever day that was: it is to be thought of. */
export function isUntitledPiece(title: string, format: string): boolean {
  if (!title.startsWith(`${format} `)) return false;
  const rest = title.slice(format.length + 1);
  return rest === 'without a title' || (rest.startsWith('for ') && A_DAY_IN_WORDS.test(rest.slice('for '.length)));
}
