export const FINDING_CODES = [
  'not_signed',
  'time_passed',
  'empty',
  'copy_long',
  'tags_many',
  'tag_broken',
  'tag_twice',
  'link_broken',
  'link_dead',
  'link_gone',
  'link_silent',
  'text_missing',
  'text_long',
  'word_never',
  'word_otherwise',
  'disclosure_missing',
  'media_missing',
  'media_many',
  'picture_small',
  'shape_other',
  'clip_short',
  'clip_long',
  'file_large',
  'alt_missing',
  'picture_old',
  'too_early',
  'too_late',
  'blackout',
  'twin',
  'sending_stopped',
  'access_ended',
  'audience_missing',
] as const;
export type FindingCode = (typeof FINDING_CODES)[number];

/** Where in a content something was found. */
export type FindingPlace = 'copy' | 'text' | 'tags' | 'first_comment' | 'link' | 'disclosure' | 'media' | 'date' | 'channel';

/** Something that speaks against going out. */
export interface Finding {
  readonly code: FindingCode;
  /** `must`: it does not go out like this; `should`: somebody decides */
  readonly severity: 'must' | 'should';
  readonly place: FindingPlace;
  /** what it is about: a word, a tag, an address, the name of a picture or a text, a day off, a day */
  readonly what?: string;
  /** how many there are, where there is a limit */
  readonly count?: number;
  readonly limit?: number;
}
