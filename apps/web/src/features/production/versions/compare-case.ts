import type { VersionContentShape } from '@zesting/contract';
import { compareContent, LARGEST_CROP, type Content, type ContentChange, type Crop } from '@zesting/core';
import { count } from '../../../lib/format';

/** A version as core knows contents. */
export const contentOf = ({ copy, disclosure, isLaidOut, texts, media, channels }: VersionContentShape): Content => ({
  shared: { copy, disclosure, isLaidOut, media, texts },
  channels: Object.fromEntries(channels.map(({ channelId, name: _, ...part }) => [channelId, part])),
});

export const FIELD_WORDS: Record<ContentChange['field'], string> = {
  copy: 'Copy',
  text: 'Text',
  disclosure: 'Disclosure',
  firstComment: 'First comment',
  link: 'Link',
  tags: 'Tags',
  media: 'Pictures and clips',
  alt: 'What a picture shows',
  shown: 'Pictures shown',
  crop: 'Cut',
  cover: 'Cover',
  layout: 'Layout of the copy',
  channel: 'Channel',
};

/** How a picture is cut, in a few words. */
export const cropWords = (crop: Crop | null): string =>
  crop === null
    ? 'whole'
    : `${crop.ratio} around ${crop.x / 100} %, ${crop.y / 100} %${crop.size < LARGEST_CROP ? `, ${crop.size / 10} % as large` : ''}`;

const wordsIn = (pieces: readonly { kind: string; text: string }[], kind: string): number =>
  pieces.reduce((sum, piece) => sum + (piece.kind === kind ? (piece.text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0) : 0), 0);

/** What became different, in a few words. */
export function changeWords(change: ContentChange): string {
  const told = (gone: number, come: number, thing: string, more: readonly string[] = []) =>
    [...(gone > 0 ? [`${count(gone, thing)} gone`] : []), ...(come > 0 ? [`${count(come, thing)} new`] : []), ...more].join(', ');
  switch (change.field) {
    case 'channel':
      return change.kind === 'gone' ? 'the piece does not go there any more' : 'the piece goes there now';
    case 'media':
      return told(change.gone.length, change.come.length, 'file', change.isReordered ? ['another order'] : []);
    case 'tags': {
      const of = (kind: string) => change.tags.filter((tag) => tag.kind === kind).length;
      return told(of('gone'), of('new'), 'tag', change.isReordered ? ['another order'] : []);
    }
    case 'shown':
      return change.after === null
        ? 'all are shown again'
        : change.after.length === 0
          ? 'none is shown any more'
          : `shown are ${change.after.map(({ name }) => name).join(', ')}`;
    case 'crop':
      return `${change.medium.name}: ${cropWords(change.before)} before, ${cropWords(change.after)} now`;
    case 'cover':
      return `${change.medium.name}: ${change.before?.name ?? 'none'} before, ${change.after?.name ?? 'none'} now`;
    case 'layout':
      return change.after ? 'has headings, lists and links now' : 'is words alone now';
    default:
      return told(wordsIn(change.pieces, 'gone'), wordsIn(change.pieces, 'new'), 'word') || 'signs or blanks';
  }
}

/** All that differs, with the name of where it stands. */
export function changesBetween(
  before: VersionContentShape,
  after: VersionContentShape,
): readonly { change: ContentChange; where: string }[] {
  const names = new Map([...before.channels, ...after.channels].map(({ channelId, name }) => [channelId, name]));
  return compareContent(contentOf(before), contentOf(after)).map((change) => {
    const channel = change.channelId === null ? null : (names.get(change.channelId) ?? '');
    const field = change.field === 'text' ? change.name : FIELD_WORDS[change.field];
    return { change, where: channel === null ? field : change.field === 'channel' ? channel : `${channel}: ${field.toLowerCase()}` };
  });
}
