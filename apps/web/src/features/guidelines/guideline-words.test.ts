import { forWords } from './guideline-words';

describe('what a guideline is for, in words', () => {
  it('names what matters, and says so where nothing does', () => {
    expect(forWords({ formatName: null, channelKind: null, skill: null }, undefined)).toBe('Every client · all of it');
    expect(forWords({ formatName: 'Still', channelKind: 'photo_feed', skill: 'design' }, 'Mossgrove')).toBe(
      'Mossgrove · Still, on photo feed, whoever does design',
    );
    expect(forWords({ formatName: null, channelKind: 'blog', skill: null }, 'Mossgrove')).toBe('Mossgrove · on blog');
  });
});
