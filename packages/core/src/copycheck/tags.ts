/** What a tag may go on with: letters, digits and marks of every script, pictures as characters, `_`, `-`, `+`; no second number sign. */
const TAG = /^(?:(?![#﹟＃])[\p{XID_Continue}\p{Extended_Pictographic}\p{Emoji_Component}_+-])+$/u;

/**
 * Whether a word, written without its number sign, is whole as a tag: what a channel would cut off at a full stop or an apostrophe is not.
 * @see UAX #31, hashtag identifiers (UAX31-R8); the set of characters is from memory
 */
export const isTag = (word: string): boolean => TAG.test(word);

/** Tags as one compares them: whatever their case. */
export const sameTag = (tag: string): string => tag.normalize('NFC').toLowerCase();
