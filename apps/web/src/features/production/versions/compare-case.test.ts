import type { VersionContentShape } from '@zesting/contract';
import { changesBetween, changeWords } from './compare-case';

const medium = (hash: string) => ({ assetId: hash, name: `${hash}.png`, mime: 'image/png', alt: '', width: 1, height: 1, hash });
const version = (more: Partial<VersionContentShape>): VersionContentShape => ({
  number: 1,
  copy: '',
  disclosure: '',
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
});
