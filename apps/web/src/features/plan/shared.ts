/** What becomes of something that was shared or typed: one line, and the address in it. */
export interface Caught {
  readonly title: string;
  readonly link: string | null;
}

/** An address within a text, without the sign that ends its sentence. */
const ADDRESS = /https?:\/\/[^\s<>"]+[^\s<>".,;:!?)\]}'’]/;
const TITLE_MOST = 200;

/**
 * Reads a line that may hold an address: what is left is the title, the address alone where nothing is.
 * @returns an empty title where nothing was said
 */
export function caughtOf(line: string): Caught {
  const link = ADDRESS.exec(line)?.[0] ?? null;
  const rest = (link === null ? line : line.replace(link, ' '))
    .replace(/\s+/g, ' ')
    .replace(/ ([.,;:!?])/g, '$1')
    .trim();
  return { title: [...(rest === '' ? (link ?? '') : rest)].slice(0, TITLE_MOST).join(''), link };
}

/** The line that a phone shares, by the parameters of the Web Share Target: title, text and url; each said once. Empty where nothing was shared. */
export function sharedLine(search: URLSearchParams): string {
  const parts = ['title', 'text', 'url'].map((name) => search.get(name)?.trim() ?? '').filter(Boolean);
  return parts
    .filter((part, index) => !parts.some((other, at) => at !== index && other.includes(part) && (other !== part || at < index)))
    .join(' ');
}
