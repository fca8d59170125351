import type { VersionContentShape } from '@zesting/contract';
import { changesBetween, changeWords } from './compare-case';

const medium = (hash: string) => ({
  assetId: hash,
  name: `${hash}.png`,
  mime: 'image/png',
  alt: '',
  width: 1,
  height: 1,
  durationMs: null,
  bytes: null,
  hash,
});
const version = (more: Partial<VersionContentShape>): VersionContentShape => ({
  number: 1,
  copy: '',
  disclosure: '',
  isLaidOut: false,
  texts: [],
  media: [],
  channels: [],
  ...more,
});
const channel = (more = {}) => ({
  channelId: 'c',
  name: 'Photo feed',
  copy: '',
  tags: [] as string[],
  firstComment: '',
  link: '',
  ...more,
});

describe('what differs, in words', () => {
  const said = (before: Partial<VersionContentShape>, after: Partial<VersionContentShape>) =>
    changesBetween(version(before), version(after)).map(({ change, where }) => `${where}: ${changeWords(change)}`);

  it('counts words, files and tags, and says where they stand', () => {
    expect(said({ copy: 'Back on the shelf' }, { copy: 'Back on shelves now' })).toEqual(['Copy: 2 words gone, 2 words new']);
    expect(said({}, { copy: '# Rye', isLaidOut: true })).toEqual([
      'Copy: 1 word new',
      'Layout of the copy: has headings, lists and links now',
    ]);
    expect(said({ isLaidOut: true }, {})).toEqual(['Layout of the copy: is words alone now']);
    const subject = (text: string) => ({ texts: [{ key: 'subject', name: 'Subject', text }] });
    expect(said(subject('Back'), subject('Back again'))).toEqual(['Subject: 1 word new']);
    expect(said(subject('Back'), {})).toEqual(['Subject: 1 word gone']);
    expect(said({ copy: 'Back' }, { copy: 'Back.' })).toEqual(['Copy: signs or blanks']);
    expect(said({ media: [medium('a'), medium('b')] }, { media: [medium('b'), medium('a'), medium('c')] })).toEqual([
      'Pictures and clips: 1 file new, another order',
    ]);
    expect(said({ channels: [channel({ tags: ['a', 'b'] })] }, { channels: [channel({ tags: ['b', 'c', 'd'] })] })).toEqual([
      'Photo feed: tags: 1 tag gone, 2 tags new',
    ]);
    expect(said({ channels: [channel()] }, {})).toEqual(['Photo feed: the piece does not go there any more']);
    expect(said({ channels: [channel()] }, { channels: [channel({ link: 'https://x.test' })] })).toEqual(['Photo feed: link: 3 words new']);
  });

  it('is nothing where nothing differs', () => {
    expect(said({ copy: 'A', channels: [channel()] }, { copy: 'A', channels: [channel()] })).toEqual([]);
  });

  it('says which pictures a channel shows, and how it cuts them', () => {
    const crop = { ratio: '4:5', x: 5000, y: 2500, size: 1000 };
    const media = [medium('a'), medium('b')];
    const shows = (before: object, after: object) => said({ media, channels: [channel(before)] }, { media, channels: [channel(after)] });
    expect(shows({}, { media: ['b'] })).toEqual(['Photo feed: pictures shown: shown are b.png']);
    expect(shows({ media: ['b'] }, {})).toEqual(['Photo feed: pictures shown: all are shown again']);
    expect(shows({}, { media: [] })).toEqual(['Photo feed: pictures shown: none is shown any more']);
    expect(shows({}, { crops: { a: crop } })).toEqual(['Photo feed: cut: a.png: whole before, 4:5 around 50 %, 25 % now']);
    expect(shows({ crops: { a: crop } }, { crops: { a: { ...crop, size: 505 } } })).toEqual([
      'Photo feed: cut: a.png: 4:5 around 50 %, 25 % before, 4:5 around 50 %, 25 %, 50.5 % as large now',
    ]);
  });
});
