import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { EMPTY_CHANNEL_PART, EMPTY_SHARED_PART, type ChannelPart, type Content } from '../content/index.js';
import { canonical, CHAIN_START, chainHead, digestParts, sha256Hex, type Json } from './index.js';

describe('canonical text (RFC 8785)', () => {
  // the test data of the RFC's author, as it ships with the package
  const data = join(__dirname, '../../../../node_modules/canonicalize/test/testdata');
  it.each(readdirSync(join(data, 'input')))('writes %s as the RFC does', (name) => {
    const [input, output] = ['input', 'output'].map((folder) => readFileSync(join(data, folder, name), 'utf8'));
    expect(canonical(JSON.parse(input ?? '') as Json)).toBe(output?.trimEnd());
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

  it('of a part that says nothing new are those of the first scheme, to the letter', () => {
    // by the first scheme, as RFC 8785 writes it: reckoned here without our own functions
    const text = `{"client":"client","content":{"copy":"","firstComment":"","link":"","tags":["fern","shade"]},"part":"channel:c1","piece":"piece","scheme":"zesting-part-1"}`;
    const digest = createHash('sha256').update(text).digest('hex');
    expect(digestParts('client', 'piece', content).channels['c1']).toBe(digest);
    expect(digestParts('client', 'piece', content)).toEqual(digestParts('client', 'piece', content, 'zesting-part-1'));
  });

  it('cover what a channel shows and how it cuts it, under the second', () => {
    const withPart = (part: Partial<ChannelPart>): Content => ({
      ...content,
      channels: { ...content.channels, c1: { ...EMPTY_CHANNEL_PART, tags: ['fern', 'shade'], ...part } },
    });
    const crop = { ratio: '4:5', x: 5000, y: 2500, size: 900 };
    const cut = withPart({ crops: { ff: crop } });
    const text = `{"client":"client","content":{"copy":"","crops":{"ff":{"ratio":"4:5","size":900,"x":5000,"y":2500}},"firstComment":"","link":"","media":null,"tags":["fern","shade"]},"part":"channel:c1","piece":"piece","scheme":"zesting-part-2"}`;
    expect(digestParts('client', 'piece', cut).channels['c1']).toBe(createHash('sha256').update(text).digest('hex'));
    const all = [
      {},
      { crops: { ff: crop } },
      { crops: { ff: { ...crop, x: 5001 } } },
      { media: [] },
      { media: ['ff'] },
      { media: ['ff'], crops: { ff: crop } },
    ];
    const digests = all.map((part) => digestParts('client', 'piece', withPart(part)));
    expect(new Set(digests.map(({ channels }) => channels['c1'])).size).toBe(all.length);
    for (const { shared, channels } of digests) expect([shared, channels['c2']]).toEqual([digests[0]?.shared, digests[0]?.channels['c2']]);
    expect(digestParts('client', 'piece', withPart({ crops: {} }))).toEqual(digests[0]);
    expect(() => digestParts('client', 'piece', cut, 'zesting-part-1')).toThrow('has no words');
    expect(() => digestParts('client', 'piece', cut, 'zesting-part-9')).toThrow('unknown scheme');
  });

  it('cover the texts besides the copy, under the third: by their keys, whatever they are called and however they are ordered', () => {
    const withTexts = (...texts: { key: string; name: string; text: string }[]): Content => ({
      ...content,
      shared: { ...EMPTY_SHARED_PART, copy: 'Copy', texts },
    });
    const subject = { key: 'subject', name: 'Subject', text: 'Caf\u0065\u0301\r\nopen' };
    const title = { key: 'title', name: 'Title', text: 'T' };
    // as RFC 8785 writes it: reckoned here without our own functions
    const text = `{"client":"client","content":{"copy":"Copy","disclosure":"","media":[],"texts":{"subject":"Caf\u00e9\\nopen"}},"part":"shared","piece":"piece","scheme":"zesting-part-3"}`;
    const shared = (made: Content, scheme?: string) => digestParts('client', 'piece', made, scheme).shared;
    expect(shared(withTexts(subject))).toBe(createHash('sha256').update(text).digest('hex'));
    expect(shared(withTexts({ ...subject, name: 'Subject line' }))).toBe(shared(withTexts(subject)));
    expect(shared(withTexts(subject, title))).toBe(shared(withTexts(title, subject)));
    expect(new Set([withTexts(), withTexts(subject), withTexts(title), withTexts(subject, title)].map((made) => shared(made))).size).toBe(
      4,
    );
    expect(shared(withTexts())).toBe(shared({ ...content, shared: { ...EMPTY_SHARED_PART, copy: 'Copy' } }, 'zesting-part-1'));
    for (const scheme of ['zesting-part-1', 'zesting-part-2']) expect(() => shared(withTexts(subject), scheme)).toThrow('has no words');
  });

  it('tell words that are laid out from the same words alone, and one cover from another, under the fourth', () => {
    const made = (isLaidOut: boolean): Content => ({ ...content, shared: { ...EMPTY_SHARED_PART, copy: '# Rye', isLaidOut } });
    // as RFC 8785 writes it: reckoned here without our own functions
    const text = `{"client":"client","content":{"copy":"# Rye","disclosure":"","isLaidOut":true,"media":[],"texts":{}},"part":"shared","piece":"piece","scheme":"zesting-part-4"}`;
    const shared = (one: Content, scheme?: string) => digestParts('client', 'piece', one, scheme).shared;
    expect(shared(made(true))).toBe(createHash('sha256').update(text).digest('hex'));
    expect(shared(made(false))).toBe(shared({ ...content, shared: { ...EMPTY_SHARED_PART, copy: '# Rye' } }, 'zesting-part-1'));
    expect(() => shared(made(true), 'zesting-part-3')).toThrow('has no words');
    const clip = { assetId: 'a', hash: 'cc', name: 'clip.mp4', alt: 'Rye' };
    const covered: Content = {
      ...content,
      shared: {
        ...EMPTY_SHARED_PART,
        media: [
          { ...clip, cover: 'dd' },
          { ...clip, hash: 'dd', alt: '' },
        ],
      },
    };
    const json = `{"client":"client","content":{"copy":"","disclosure":"","isLaidOut":false,"media":[{"alt":"Rye","cover":"dd","hash":"cc"},{"alt":"","cover":null,"hash":"dd"}],"texts":{}},"part":"shared","piece":"piece","scheme":"zesting-part-4"}`;
    expect(shared(covered)).toBe(createHash('sha256').update(json).digest('hex'));
    expect(() => shared(covered, 'zesting-part-3')).toThrow('has no words');
  });

  it('chains: a changed record changes every later head', () => {
    const heads = (records: string[]) =>
      records.reduce<string[]>((all, record) => [...all, chainHead(all.at(-1) ?? CHAIN_START, { record })], []);
    const [one, two] = [heads(['a', 'b', 'c']), heads(['a', 'x', 'c'])];
    expect(one.map((head, index) => head === two[index])).toEqual([true, false, false]);
  });
});
