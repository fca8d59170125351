import LinkifyIt from 'linkify-it';

const finder = new LinkifyIt({}, { fuzzyLink: false, fuzzyEmail: false, fuzzyIP: false });

/** A web address in a text: where it begins and ends, in UTF-16 code units. */
export interface LinkInText {
  readonly start: number;
  readonly end: number;
  readonly address: string;
}

/** The web addresses in a text that say `http` or `https`, as the package `linkify-it` finds their ends. */
export const linksIn = (text: string): LinkInText[] =>
  (finder.match(text) ?? [])
    .filter(({ schema }) => schema === 'http:' || schema === 'https:')
    .map(({ index, lastIndex, url }) => ({ start: index, end: lastIndex, address: url }));

/** What begins like an address in a text and is none: `http` or `https` without a host that can be. */
export function brokenLinksIn(text: string): string[] {
  const whole = linksIn(text);
  return [...text.matchAll(/(?<![\p{L}\p{N}])https?:\S*/giu)].flatMap(({ 0: word, index }) =>
    whole.some(({ start, end, address }) => index >= start && index < end && isWebAddress(address)) ? [] : word,
  );
}

/** What pages answered that were asked, by address: the status of HTTP (RFC 9110, section 15); null where none came. */
export type LinkAnswers = ReadonlyMap<string, number | null>;

/** Whether a page is there, is gone, or says nothing. */
export type AnswerState = 'there' | 'gone' | 'silent';

/**
 * What an answer says of a page. Not found and gone say that it is not there; a failure of the server, and no answer, say nothing. All else comes from a
 * page that is there, though it may ask whoever comes to sign in or to wait.
 * @see RFC 9110, sections 15.5.5, 15.5.11 and 15.6
 */
export function answerState(status: number | null): AnswerState {
  if (status === 404 || status === 410) return 'gone';
  return status === null || status >= 500 ? 'silent' : 'there';
}

/** What may stand in an address: unreserved and reserved characters, letters beyond ASCII, and `%` with two hex digits. */
const IN_ADDRESS = /^(?:[A-Za-z0-9\-._~:/?#[\]@!$&'()*+,;=]|%[0-9A-Fa-f]{2}|[^\p{ASCII}\p{C}\p{Z}])+$/u;

/** A scheme, a name before the host, the host (a name, a number, or one in brackets), a port. @see RFC 3986, appendix B and 3.2 */
const WITH_HOST = /^https?:\/\/(?:[^/?#@]*@)?(\[[0-9A-Fa-f:.]+\]|[^/?#:@[\]]+)(?::\d*)?(?:[/?#]|$)/i;

/**
 * Whether a text is a whole address of a page: `http` or `https`, with a host, without white space or what an address cannot hold.
 * Syntax alone: nobody is asked whether the page is there.
 * @see RFC 3986, sections 2 and 3; RFC 3987 for letters beyond ASCII
 */
export function isWebAddress(text: string): boolean {
  const host = IN_ADDRESS.test(text) ? WITH_HOST.exec(text)?.[1] : undefined;
  return (
    host !== undefined && (host.startsWith('[') || host.split('.').every((label, index, all) => label !== '' || index === all.length - 1))
  );
}
