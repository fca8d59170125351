import type { MediumShape } from '@zesting/contract';
import { bodyOf, type Draft } from './use-draft';

const medium = (hash: string, cover?: string): MediumShape => ({
  assetId: `a-${hash}`,
  hash,
  name: hash,
  alt: '',
  mime: cover === undefined ? 'image/png' : 'video/mp4',
  width: null,
  height: null,
  durationMs: null,
  bytes: null,
  ...(cover === undefined ? {} : { cover }),
});
const draft = (...media: MediumShape[]): Draft => ({
  shared: { copy: '', disclosure: '', isLaidOut: false, media, texts: [], state: 'open' },
  channels: [],
});

describe('a draft of a content', () => {
  it('is saved with the covers of its clips, as long as their pictures are in it', () => {
    const covers = (of: Draft) => bodyOf(of).shared.media.map(({ assetId, cover }) => [assetId, cover]);
    expect(covers(draft(medium('clip', 'still'), medium('still')))).toEqual([
      ['a-clip', 'still'],
      ['a-still', null],
    ]);
    expect(covers(draft(medium('clip', 'still')))).toEqual([['a-clip', null]]); // its picture was taken out
  });

  it('is saved with the texts that are written or thought of, and no others', () => {
    const text = (key: string, words: string, others: string[] = []) => ({
      ...{ key, name: key, text: words, isLong: false, isSlides: false, prompt: '', limit: null, isNeeded: false, isAsked: true },
      others,
    });
    const { shared, channels } = draft();
    const of: Draft = { shared: { ...shared, texts: [text('a', 'A'), text('b', ' '), text('c', '', ['C'])] }, channels };
    expect(bodyOf(of).shared.texts).toEqual([
      { key: 'a', text: 'A', others: [] },
      { key: 'c', text: '', others: ['C'] },
    ]);
  });
});
