import fc from 'fast-check';
import { EMPTY_CHANNEL_PART, type Content } from '../content/index.js';
import { canonical, CHAIN_START, chainHead, digestParts, sha256Hex, type Json } from './index.js';

describe('canonical text (RFC 8785)', () => {
  it('sorts keys by UTF-16 code units: the example of RFC 8785, 3.2.3 (from memory)', () => {
    const value = {
      '\u20ac': 'Euro Sign',
      '\r': 'Carriage Return',
      '\ufb33': 'Hebrew Letter Dalet With Dagesh',
      '1': 'One',
      '\ud83d\ude00': 'Emoji: Grinning Face',
      '\u0080': 'Control',
      '\u00f6': 'Latin Small Letter O With Diaeresis',
    };
    const names = [
      'Carriage Return',
      'One',
      'Control',
      'Latin Small Letter O With Diaeresis',
      'Euro Sign',
      'Emoji: Grinning Face',
      'Hebrew Letter Dalet With Dagesh',
    ];
    expect([...canonical(value).matchAll(/:"([^"]+)"/g)].map((match) => match[1])).toEqual(names);
  });

  it('prints numbers, literals and strings: the example of RFC 8785, 3.2.2 (from memory)', () => {
    const text = canonical({
      // eslint-disable-next-line no-loss-of-precision -- the RFC's own number: that it is rounded is the point
      numbers: [333333333.33333329, 1e30, 4.5, 2e-3, 0.000000000000000000000000001],
      string: '\u20ac$\u000f\u000aA\'\u0042\u0022\u005c\\"\u002f',
      literals: [null, true, false],
    });
    expect(text).toBe(
      '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\\u000f\\nA\'B\\"\\\\\\\\\\"/"}',
    );
  });

  it('refuses what JSON cannot carry', () => {
    expect(() => canonical(Number.NaN)).toThrow('not a JSON number');
    expect(() => canonical('\ud800')).toThrow('lone surrogate');
    expect(() => canonical({ '\ud800': 1 })).toThrow('lone surrogate');
  });

  it('reads back to the same value, whatever the order of keys', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        const json = JSON.parse(JSON.stringify(value)) as Json; // drops -0, which JSON text cannot tell from 0
        expect(JSON.parse(canonical(json))).toEqual(json);
      }),
    );
  });
});

describe('digests', () => {
  const content: Content = {
    shared: { copy: 'Line one\nLine two', media: [{ assetId: 'a1', hash: 'ff', name: 'a.png', alt: 'A fern' }], disclosure: '' },
    channels: { c1: { ...EMPTY_CHANNEL_PART, tags: ['fern', 'shade'] }, c2: EMPTY_CHANNEL_PART },
  };
  const withCopy = (copy: string): Content => ({ ...content, shared: { ...content.shared, copy } });

  it('hashes "abc" as RFC 6234 says', () => {
    expect(sha256Hex('abc')).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  });

  it('changes only the part that was edited, and comes back with the content', () => {
    const before = digestParts('client', 'piece', content);
    const edited = digestParts('client', 'piece', {
      ...content,
      channels: { ...content.channels, c1: { ...EMPTY_CHANNEL_PART, tags: ['shade', 'fern'] } },
    });
    expect(edited.shared).toBe(before.shared);
    expect(edited.channels['c2']).toBe(before.channels['c2']);
    expect(edited.channels['c1']).not.toBe(before.channels['c1']);
    expect(digestParts('client', 'piece', structuredClone(content))).toEqual(before);
  });

  it('sees through line ends and composed letters, and not through words', () => {
    const shared = (copy: string) => digestParts('client', 'piece', withCopy(copy)).shared;
    expect(shared('a\r\nb')).toBe(shared('a\nb'));
    expect(shared('cafe\u0301')).toBe(shared('caf\u00e9'));
    expect(shared('a b')).not.toBe(shared('a  b'));
  });

  it('binds to client, piece and part', () => {
    const all = [digestParts('a', 'p', content), digestParts('b', 'p', content), digestParts('a', 'q', content)];
    expect(new Set(all.flatMap((digests) => [digests.shared, ...Object.values(digests.channels)])).size).toBe(9);
  });

  it('chains: a changed record changes every later head', () => {
    const heads = (records: string[]) =>
      records.reduce<string[]>((all, record) => [...all, chainHead(all.at(-1) ?? CHAIN_START, { record })], []);
    const [one, two] = [heads(['a', 'b', 'c']), heads(['a', 'x', 'c'])];
    expect(one.map((head, index) => head === two[index])).toEqual([true, false, false]);
  });
});
