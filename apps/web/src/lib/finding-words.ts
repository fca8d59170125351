import type { FindingShape } from '@zesting/contract';
import { count, dayWords } from './format';

type Said = Pick<FindingShape, 'code' | 'place' | 'what' | 'count' | 'limit'>;

const PLACES: Record<FindingShape['place'], string> = {
  copy: 'the copy',
  text: 'a text beside the copy',
  tags: 'the tags',
  first_comment: 'the first comment',
  link: 'the link',
  disclosure: 'the disclosure',
  media: 'the pictures',
  date: 'the day',
  channel: 'the channel',
};

const WORDS: Record<FindingShape['code'], (said: Said) => string> = {
  not_signed: () => 'Not signed as it stands',
  time_passed: () => 'Its time has passed',
  empty: () => 'There is nothing in it yet',
  copy_long: ({ count: length = 0, limit = 0 }) => `${length} of ${limit} characters: ${length - limit} too many`,
  tags_many: ({ count: tags = 0, limit = 0 }) =>
    limit === 0 ? 'This channel takes no tags' : `${tags} of ${count(limit, 'tag')}: ${tags - limit} too many`,
  tag_broken: ({ what = '' }) => `“${what}” is no whole tag`,
  tag_twice: ({ what = '' }) => `The tag “${what}” is there twice`,
  link_broken: ({ what = '', place }) => `“${what}” is no whole address${place === 'copy' ? ' in the copy' : ''}`,
  link_dead: () => 'An address in the text cannot be pressed on this channel',
  link_gone: ({ what = '', place }) => `There is no page at ${what}${place === 'first_comment' ? ' (first comment)' : ''}`,
  link_silent: ({ what = '', place }) => `No answer from ${what}${place === 'first_comment' ? ' (first comment)' : ''}`,
  text_missing: ({ what = '' }) => `“${what}” is not written yet`,
  text_long: ({ what = '', count: length = 0, limit = 0 }) => `“${what}” has ${length} of ${limit} characters: ${length - limit} too many`,
  word_otherwise: ({ what = '', place }) => `“${what}” is written otherwise in ${PLACES[place]}`,
  word_never: ({ what = '', place }) => `“${what}” is never to be used, and is in ${PLACES[place]}`,
  disclosure_missing: () => 'The disclosure that the client asks for is missing',
  media_missing: () => 'This channel needs a picture or clip',
  media_many: ({ count: media = 0, limit = 0 }) => `Of ${media} pictures and clips the first ${limit === 1 ? 'goes' : `${limit} go`} out`,
  picture_small: ({ what = '', count: width = 0, limit = 0 }) => `“${what}” is ${width} pixels wide, not ${limit}`,
  shape_other: ({ what = '' }) => `“${what}” has another shape: this channel cuts it at its middle`,
  clip_short: ({ what = '', count: seconds = 0, limit = 0 }) => `“${what}” runs ${count(seconds, 'second')}, at least ${limit} are needed`,
  clip_long: ({ what = '', count: seconds = 0, limit = 0 }) => `“${what}” runs ${count(seconds, 'second')}, at most ${limit} fit`,
  file_large: ({ what = '', count: size = 0, limit = 0 }) => `“${what}” weighs ${size} MB, at most ${limit} fit`,
  alt_missing: ({ what = '' }) => `“${what}” has no alternative text`,
  picture_old: ({ what = '' }) => `“${what}” was to be renewed by then`,
  too_early: ({ what = '' }) => `It may not be out before ${dayWords(what)}`,
  too_late: ({ what = '' }) => `It holds only until ${dayWords(what)}`,
  blackout: ({ what = '' }) => `Blackout: ${what}`,
  sending_stopped: ({ what = '' }) => `Sending is stopped: ${what}`,
  access_ended: () => 'Access to the channel has ended by then',
  audience_missing: () => 'Nobody is named who gets it on this channel',
  twin: ({ what = '' }) => `The same goes out on this channel on this day: “${what}”`,
};

/** What was found at a place, for the notes of its field: what must be settled, and what somebody decides. */
export function notesAt(
  findings: readonly FindingShape[],
  place: FindingShape['place'],
): { error: string | undefined; warning: string | undefined } {
  const words = (severity: FindingShape['severity']) =>
    findings.flatMap((found) => (found.place === place && found.severity === severity ? findingWords(found) : [])).join('. ') || undefined;
  return { error: words('must'), warning: words('should') };
}

/** What was found, in words. */
export const findingWords = (found: Said): string => WORDS[found.code](found);
