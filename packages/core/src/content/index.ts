import type { Crop } from '../crop/index.js';
import { proseWords } from '../prose/index.js';
import { wordingsOf, type ContentText, type OtherWordings } from './texts.js';

export * from './language.js';
export * from './slides.js';
export * from './texts.js';

/** A picture or file in a piece's content, known by the SHA-256 of its bytes. */
export interface Medium {
  readonly assetId: string;
  readonly hash: string;
  readonly name: string;
  readonly alt: string;
  /** of a clip: the picture of the same content that stands for it before it plays, by the digest of its bytes; absent: a channel takes what it wants */
  readonly cover?: string;
}

/** What all channels share. */
export interface SharedPart {
  readonly copy: string;
  readonly media: readonly Medium[];
  readonly disclosure: string;
  /** its copy has headings, lists, links and emphasis, written as `readProse` reads them; absent: it is words alone */
  readonly isLaidOut?: boolean;
  /** what its format has besides the copy, such as a subject line or a script; absent: nothing of it is written */
  readonly texts?: readonly ContentText[];
  /** other wordings of its texts that were thought of, by the keys of these: to choose from, and no part of what is signed or goes out */
  readonly others?: OtherWordings;
}

/** What one channel has of its own. Empty copy means: the shared copy goes out there. */
export interface ChannelPart {
  readonly copy: string;
  readonly tags: readonly string[];
  readonly firstComment: string;
  readonly link: string;
  /** which of the shared media go out here, in this order, by the digests of their bytes; absent: all of them as they stand */
  readonly media?: readonly string[];
  /** how pictures are cut here, by the digests of their bytes; one that is not named goes out whole */
  readonly crops?: Readonly<Record<string, Crop>>;
}

/** A piece's content: the unit that a version freezes. Channel parts are keyed by channel id. */
export interface Content {
  readonly shared: SharedPart;
  readonly channels: Readonly<Record<string, ChannelPart>>;
}

export const EMPTY_SHARED_PART: SharedPart = { copy: '', media: [], disclosure: '' };
export const EMPTY_CHANNEL_PART: ChannelPart = { copy: '', tags: [], firstComment: '', link: '' };

/** The words of the copy that channels share, as they stand where nothing can be laid out. */
export const copyWords = ({ copy, isLaidOut = false }: Pick<SharedPart, 'copy' | 'isLaidOut'>): string =>
  isLaidOut ? proseWords(copy) : copy;

/** Whether a channel has a copy of its own, which is words alone. */
const hasOwnCopy = (content: Content, channelId: string): boolean => (content.channels[channelId]?.copy ?? '').trim() !== '';

/** The words of the copy that goes out on a channel. */
export const copyOnChannel = (content: Content, channelId: string): string =>
  hasOwnCopy(content, channelId) ? (content.channels[channelId]?.copy ?? '') : copyWords(content.shared);

/** The copy that goes out on a channel as it is laid out, to be read by `readProse`; null where it is words alone. */
export const laidOutOn = (content: Content, channelId: string): string | null =>
  content.shared.isLaidOut === true && !hasOwnCopy(content, channelId) ? content.shared.copy : null;

/** A medium as it goes out on a channel. */
export type ShownMedium<Kind extends Pick<Medium, 'hash'> = Medium> = Kind & {
  /** how it is cut there; null: not at all */
  readonly crop: Crop | null;
};

/** Media without those that are the cover of another: what goes out where nobody chose. */
export const usualMedia = <Kind extends Pick<Medium, 'hash' | 'cover'>>(media: readonly Kind[]): Kind[] =>
  media.filter(({ hash }) => !media.some(({ cover }) => cover === hash));

/** The pictures and clips that a channel shows, in their order there, each as it is cut there. */
export function mediaShown<Kind extends Pick<Medium, 'hash' | 'cover'>>(
  media: readonly Kind[],
  part: Pick<ChannelPart, 'media' | 'crops'> | undefined,
): ShownMedium<Kind>[] {
  const chosen = part?.media?.flatMap((hash) => media.find((medium) => medium.hash === hash) ?? []) ?? usualMedia(media);
  return chosen.map((medium) => ({ ...medium, crop: part?.crops?.[medium.hash] ?? null }));
}

/** A medium as it goes out, or the cover of one that does. */
export type MediumOut<Kind extends Pick<Medium, 'hash' | 'cover'> = Medium> = ShownMedium<Kind> & {
  /** the clip that it stands for, by the digest of its bytes; null: it goes out itself */
  readonly coverOf: string | null;
};

/** What a channel shows, with the cover of each clip behind it, cut as the channel cuts that picture. */
export const withCovers = <Kind extends Pick<Medium, 'hash' | 'cover'>>(
  shown: readonly ShownMedium<Kind>[],
  media: readonly Kind[],
  part: Pick<ChannelPart, 'crops'> | undefined,
): MediumOut<Kind>[] =>
  shown.flatMap((medium) => {
    const cover = media.find(({ hash }) => hash === medium.cover);
    const behind = cover ? [{ ...cover, crop: part?.crops?.[cover.hash] ?? null, coverOf: medium.hash }] : [];
    return [{ ...medium, coverOf: null }, ...behind];
  });

/**
 * A content without what says nothing: a text that is empty, a layout of no words, a cover that is not there, a channel names no medium and cuts none that is not there, and one that shows all as they stand names none. A
 * choice of which nothing is left shows all again.
 */
export function tidied({ shared, channels }: Content): Content {
  const all = shared.media.map(({ hash }) => hash);
  const media = shared.media.map(({ cover, ...medium }) =>
    cover !== undefined && cover !== medium.hash && all.includes(cover) ? { ...medium, cover } : medium,
  );
  const usual = usualMedia(media).map(({ hash }) => hash);
  const part = ({ media: named, crops, ...rest }: ChannelPart): ChannelPart => {
    const chosen = named?.filter((hash, index) => all.includes(hash) && named.indexOf(hash) === index);
    const isAll = !chosen || chosen.join() === usual.join() || (chosen.length === 0 && (named ?? []).length > 0);
    const cut = Object.entries(crops ?? {}).filter(([hash]) => all.includes(hash));
    return { ...rest, ...(isAll ? {} : { media: chosen }), ...(cut.length === 0 ? {} : { crops: Object.fromEntries(cut) }) };
  };
  const { texts = [], isLaidOut = false, others = {}, ...rest } = shared;
  const written = texts.filter(({ text }) => text.trim() !== '');
  const thought = wordingsOf(others, texts);
  return {
    shared: {
      ...rest,
      media,
      ...(isLaidOut && shared.copy.trim() !== '' ? { isLaidOut } : {}),
      ...(written.length === 0 ? {} : { texts: written }),
      ...(Object.keys(thought).length === 0 ? {} : { others: thought }),
    },
    channels: Object.fromEntries(Object.entries(channels).map(([id, each]) => [id, part(each)])),
  };
}

/** A content as it is frozen: without what was only thought of. */
export function frozen({ shared: { others: _, ...shared }, channels }: Content): Content {
  return { shared, channels };
}

/** What one channel shows, as somebody changes it there; what is left away stays. */
export interface ChannelChange {
  /** what goes out there; empty: what the channels share */
  readonly copy?: string;
  readonly tags?: readonly string[];
  readonly firstComment?: string;
  readonly link?: string;
}

/**
 * A content after what one channel shows was changed: no other channel shows anything else than before. A copy that goes out nowhere else is
 * changed where it stands; one that others share, or that is laid out, becomes that channel's own.
 * @param channelId one of the content's channels: another is no change
 */
export function changedOn(content: Content, channelId: string, change: ChannelChange): Content {
  const part = content.channels[channelId];
  if (!part) return content;
  const { copy = part.copy, ...rest } = change;
  const isOwn = part.copy.trim() !== '';
  const isShared = Object.entries(content.channels).some(([id, other]) => id !== channelId && other.copy.trim() === '');
  const isItsAlone = change.copy !== undefined && !isOwn && !isShared && content.shared.isLaidOut !== true;
  return {
    shared: isItsAlone ? { ...content.shared, copy } : content.shared,
    channels: { ...content.channels, [channelId]: { ...part, ...rest, copy: isItsAlone ? part.copy : copy } },
  };
}

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

/** Between the parts of a word that may be written apart, with a hyphen, or as one. */
const JOINT = /[\s\p{Pd}]+/u;

/**
 * The words that stand in a text, but not as they are to be written: joined or parted, and where a word has capitals, in another case. A word without
 * capitals may begin a sentence.
 * @param words as they are to be written
 */
export function wordsOtherwise(text: string, words: readonly string[]): string[] {
  const plain = text.normalize('NFC').replace(/\s+/g, ' ');
  return words.filter((word) => {
    const wanted = word.normalize('NFC').trim().replace(/\s+/g, ' ');
    const parts = wanted.split(JOINT).filter((part) => part !== '');
    if (parts.length === 0) return false;
    const pattern = parts.map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('[\\s\\p{Pd}]*');
    const isCased = wanted !== wanted.toLowerCase();
    const asWritten = (found: string) => (isCased ? found : found.toLowerCase());
    const standing = plain.matchAll(new RegExp(`(?<![\\p{L}\\p{N}])${pattern}(?![\\p{L}\\p{N}])`, 'giu'));
    return [...standing].some(({ 0: found }) => asWritten(found) !== wanted);
  });
}
