import type { Day } from '../time/index.js';

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

/** Latin letters that are no accented ones: Unicode does not take them apart. */
const LETTERS: Readonly<Record<string, string>> = {
  ß: 'ss',
  æ: 'ae',
  ø: 'o',
  ł: 'l',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  œ: 'oe',
  ı: 'i',
  ħ: 'h',
  ŋ: 'ng',
  ŧ: 't',
  ĸ: 'k',
};

/** Lower-case ASCII letters, digits and hyphens: what every file system and URL takes. Accents fall away, other scripts become nothing. */
export function plainTitle(title: string): string {
  const plain = title
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[ßæøłđðþœıħŋŧĸ]/g, (letter) => LETTERS[letter] ?? letter)
    .replace(/[’']/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return plain.slice(0, TITLE_LIMIT).replace(/-+$/, '') || 'untitled';
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
