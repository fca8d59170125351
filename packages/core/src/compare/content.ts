import { EMPTY_CHANNEL_PART, type ChannelPart, type Content, type ContentText, type Medium } from '../content/index.js';
import type { Crop } from '../crop/index.js';
import { plain } from '../digest/index.js';
import { compareText, type TextPiece } from './text.js';

/** A tag of the one before or the one after. */
export interface TagPiece {
  readonly kind: TextPiece['kind'];
  readonly tag: string;
}

/** One thing that differs between two contents. `channelId` is null for what all channels share. */
export type ContentChange =
  | {
      readonly field: 'copy' | 'disclosure' | 'firstComment' | 'link';
      readonly channelId: string | null;
      readonly pieces: readonly TextPiece[];
    }
  /** one of the texts besides the copy */
  | { readonly field: 'text'; readonly channelId: null; readonly name: string; readonly pieces: readonly TextPiece[] }
  /** whether the copy is laid out, with headings, lists, links and emphasis */
  | { readonly field: 'layout'; readonly channelId: null; readonly before: boolean; readonly after: boolean }
  | { readonly field: 'tags'; readonly channelId: string; readonly tags: readonly TagPiece[]; readonly isReordered: boolean }
  | {
      readonly field: 'media';
      readonly channelId: null;
      readonly gone: readonly Medium[];
      readonly come: readonly Medium[];
      /** what stands in both, in another order */
      readonly isReordered: boolean;
    }
  | { readonly field: 'alt'; readonly channelId: null; readonly medium: Medium; readonly pieces: readonly TextPiece[] }
  /** the picture that stands for a clip; null: none was chosen */
  | {
      readonly field: 'cover';
      readonly channelId: null;
      readonly medium: Medium;
      readonly before: Medium | null;
      readonly after: Medium | null;
    }
  /** which of the shared media a channel shows; null: all of them as they stand */
  | {
      readonly field: 'shown';
      readonly channelId: string;
      readonly before: readonly Medium[] | null;
      readonly after: readonly Medium[] | null;
    }
  /** how a channel cuts a picture; null: not at all */
  | {
      readonly field: 'crop';
      readonly channelId: string;
      readonly medium: Medium;
      readonly before: Crop | null;
      readonly after: Crop | null;
    }
  | { readonly field: 'channel'; readonly channelId: string; readonly kind: 'gone' | 'new' };

/**
 * What differs between two contents, in the order in which they are read: shared part first, then channel by channel. Nothing differs that has
 * the same digest, and whatever has another digest differs.
 * @param language as `compareText` has it
 */
export function compareContent(before: Content, after: Content, language?: string): ContentChange[] {
  const text = (
    field: 'copy' | 'disclosure' | 'firstComment' | 'link',
    channelId: string | null,
    one: string,
    other: string,
  ): ContentChange[] =>
    plain(one) === plain(other) ? [] : [{ field, channelId, pieces: compareText(plain(one), plain(other), language) }];
  const channelIds = [...new Set([...Object.keys(before.channels), ...Object.keys(after.channels)])];
  return [
    ...compareTexts(before.shared.texts, after.shared.texts, language),
    ...text('copy', null, before.shared.copy, after.shared.copy),
    ...compareLayout(before.shared.isLaidOut === true, after.shared.isLaidOut === true),
    ...compareMedia(before.shared.media, after.shared.media, language),
    ...text('disclosure', null, before.shared.disclosure, after.shared.disclosure),
    ...channelIds.flatMap((channelId): ContentChange[] => {
      const [one, other] = [before.channels[channelId], after.channels[channelId]];
      const lone: ContentChange[] = one && other ? [] : [{ field: 'channel', channelId, kind: one ? 'gone' : 'new' }];
      const [from, to]: [ChannelPart, ChannelPart] = [one ?? EMPTY_CHANNEL_PART, other ?? EMPTY_CHANNEL_PART];
      return [
        ...lone,
        ...text('copy', channelId, from.copy, to.copy),
        ...compareTags(channelId, from.tags, to.tags),
        ...text('firstComment', channelId, from.firstComment, to.firstComment),
        ...text('link', channelId, from.link, to.link),
        ...compareShown(channelId, [from, before.shared.media], [to, after.shared.media]),
      ];
    }),
  ];
}

const compareLayout = (before: boolean, after: boolean): ContentChange[] =>
  before === after ? [] : [{ field: 'layout', channelId: null, before, after }];

/** Texts are the same by their keys, under the newer name; one that is not there is empty. */
function compareTexts(before: readonly ContentText[] = [], after: readonly ContentText[] = [], language?: string): ContentChange[] {
  const keys = [...new Set([...after, ...before].map(({ key }) => key))];
  return keys.flatMap((key): ContentChange[] => {
    const [one, other] = [before, after].map((texts) => texts.find((text) => text.key === key));
    const [from, to] = [plain(one?.text ?? ''), plain(other?.text ?? '')];
    const isSame = from === to && (one === undefined) === (other === undefined);
    return isSame ? [] : [{ field: 'text', channelId: null, name: (other ?? one)?.name ?? key, pieces: compareText(from, to, language) }];
  });
}

/** Whether the things that stand in both lists stand there in another order. */
function isInOtherOrder(before: readonly string[], after: readonly string[]): boolean {
  const [one, other] = [before.filter((id) => after.includes(id)), after.filter((id) => before.includes(id))];
  return one.join('\n') !== other.join('\n');
}

/** A medium is the same by its bytes, whatever it is called; the same twice are two. */
function byBytes(media: readonly Medium[]): Map<string, Medium> {
  const seen = new Map<string, number>();
  return new Map(
    media.map((medium) => {
      const nth = (seen.get(medium.hash) ?? 0) + 1;
      seen.set(medium.hash, nth);
      return [`${medium.hash} ${nth}`, medium];
    }),
  );
}

function compareMedia(before: readonly Medium[], after: readonly Medium[], language?: string): ContentChange[] {
  const [one, other] = [byBytes(before), byBytes(after)];
  const gone = [...one].flatMap(([key, medium]) => (other.has(key) ? [] : [medium]));
  const come = [...other].flatMap(([key, medium]) => (one.has(key) ? [] : [medium]));
  const isReordered = isInOtherOrder([...one.keys()], [...other.keys()]);
  const alts = [...other].flatMap(([key, medium]): ContentChange[] => {
    const was = one.get(key);
    return !was || plain(was.alt) === plain(medium.alt)
      ? []
      : [{ field: 'alt', channelId: null, medium, pieces: compareText(plain(was.alt), plain(medium.alt), language) }];
  });
  const named = (hash: string | undefined): Medium | null =>
    hash === undefined ? null : ([...after, ...before].find((medium) => medium.hash === hash) ?? { assetId: '', hash, name: '', alt: '' });
  const covers = [...other].flatMap(([key, medium]): ContentChange[] => {
    const was = one.get(key);
    return !was || was.cover === medium.cover
      ? []
      : [{ field: 'cover', channelId: null, medium, before: named(was.cover), after: named(medium.cover) }];
  });
  const differs = gone.length > 0 || come.length > 0 || isReordered;
  return [...(differs ? [{ field: 'media', channelId: null, gone, come, isReordered } as const] : []), ...alts, ...covers];
}

type Showing = readonly [part: ChannelPart, media: readonly Medium[]];

function compareShown(channelId: string, [from, had]: Showing, [to, has]: Showing): ContentChange[] {
  /** media by what is known of them; of what is in neither content no more than its digest */
  const known = (hash: string): Medium =>
    [...has, ...had].find((medium) => medium.hash === hash) ?? { assetId: '', hash, name: '', alt: '' };
  const isOther = (from.media === undefined) !== (to.media === undefined) || from.media?.join() !== to.media?.join();
  const chosen = ({ media }: ChannelPart) => media?.map(known) ?? null;
  const hashes = [...new Set([...Object.keys(from.crops ?? {}), ...Object.keys(to.crops ?? {})])];
  return [
    ...(isOther ? [{ field: 'shown', channelId, before: chosen(from), after: chosen(to) } as const] : []),
    ...hashes.flatMap((hash): ContentChange[] => {
      const [before, after] = [from.crops?.[hash] ?? null, to.crops?.[hash] ?? null];
      return sameCrop(before, after) ? [] : [{ field: 'crop', channelId, medium: known(hash), before, after }];
    }),
  ];
}

const sameCrop = (one: Crop | null, other: Crop | null): boolean =>
  one?.ratio === other?.ratio && one?.x === other?.x && one?.y === other?.y && one?.size === other?.size;

function compareTags(channelId: string, before: readonly string[], after: readonly string[]): ContentChange[] {
  if (before.map(plain).join('\n') === after.map(plain).join('\n')) return [];
  const tags = [
    ...after.map((tag): TagPiece => ({ kind: before.includes(tag) ? 'same' : 'new', tag })),
    ...before.filter((tag) => !after.includes(tag)).map((tag): TagPiece => ({ kind: 'gone', tag })),
  ];
  return [{ field: 'tags', channelId, tags, isReordered: isInOtherOrder(before, after) }];
}
