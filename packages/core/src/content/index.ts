/** A picture or file in a piece's content, known by the SHA-256 of its bytes. */
export interface Medium {
  readonly assetId: string;
  readonly hash: string;
  readonly name: string;
  readonly alt: string;
}

/** What all channels share. */
export interface SharedPart {
  readonly copy: string;
  readonly media: readonly Medium[];
  readonly disclosure: string;
}

/** What one channel has of its own. Empty copy means: the shared copy goes out there. */
export interface ChannelPart {
  readonly copy: string;
  readonly tags: readonly string[];
  readonly firstComment: string;
  readonly link: string;
}

/** A piece's content: the unit that a version freezes. Channel parts are keyed by channel id. */
export interface Content {
  readonly shared: SharedPart;
  readonly channels: Readonly<Record<string, ChannelPart>>;
}

export const EMPTY_SHARED_PART: SharedPart = { copy: '', media: [], disclosure: '' };
export const EMPTY_CHANNEL_PART: ChannelPart = { copy: '', tags: [], firstComment: '', link: '' };

/** The copy that goes out on a channel. */
export const copyOnChannel = (content: Content, channelId: string): string =>
  content.channels[channelId]?.copy.trim() ? (content.channels[channelId]?.copy ?? '') : content.shared.copy;

/**
 * Which of some words stand in a text: whole words whatever their case, several in a row as one; not as a part of a longer word.
 * @param words as somebody listed them; empty ones never stand anywhere
 */
export function wordsStanding(text: string, words: readonly string[]): string[] {
  const plain = ` ${text.normalize('NFC').toLowerCase().replace(/\s+/g, ' ')} `;
  const isWord = (character: string | undefined) => character !== undefined && /[\p{L}\p{N}]/u.test(character);
  return words.filter((word) => {
    const sought = word.normalize('NFC').toLowerCase().trim().replace(/\s+/g, ' ');
    if (sought === '') return false;
    for (let at = plain.indexOf(sought); at >= 0; at = plain.indexOf(sought, at + 1))
      if (!isWord(plain[at - 1]) && !isWord(plain[at + sought.length])) return true;
    return false;
  });
}
