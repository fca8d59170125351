import { CHAIN_START, chainHead, digestParts } from '../digest/index';
import { RECORD_SCHEME, recordProblems, recordText, type SignOffRecord } from './index';

const CONTENT = {
  shared: { copy: 'Six hours of sun.', media: [{ assetId: 'a', hash: 'ab'.repeat(32), name: 'figs.png', alt: 'Figs' }], disclosure: '' },
  channels: { feed: { copy: 'Figs?', tags: ['figs'], firstComment: '', link: '' } },
};

function made(): SignOffRecord {
  const digests = digestParts('client', 'piece', CONTENT);
  const all = [digests.shared, ...Object.values(digests.channels)];
  const link = (before: string, sequence: number, verdict: string) => {
    const record = { sequence, versionId: 'v1', digests: all, verdict, remark: '', decidedAt: '2027-03-02T10:00:00Z' };
    return { before, head: chainHead(before, record), record, contactName: 'Hana', round: 1 };
  };
  const first = link(chainHead(CHAIN_START, { sequence: 1 }), 2, 'changes');
  const second = link(first.head, 3, 'approve');
  return {
    scheme: RECORD_SCHEME,
    agency: 'Agency',
    client: { id: 'client', code: 'AAA', name: 'Client', zone: 'Europe/London' },
    piece: { id: 'piece', number: 7, title: 'Figs' },
    channels: { feed: 'Photo feed' },
    versions: [{ id: 'v1', number: 1, frozenAt: '2027-03-01T10:00:00Z', content: CONTENT, digests, scheme: 'zesting-part-1' }],
    decisions: [first, second],
    signed: { shared: 'signed', channels: { feed: 'signed' } },
    chain: { sequence: 3, head: second.head },
    madeAt: '2027-03-03T10:00:00Z',
  };
}

const changed = (change: (record: SignOffRecord) => void): string[] => {
  const record = structuredClone(made());
  change(record);
  return recordProblems(record);
};
/** Writes where the type says that nobody does. */
const put = (target: object, key: string, value: unknown) => Reflect.set(target, key, value);

describe('a sign-off record', () => {
  it('holds when it was made of what happened, also after being written and read', () => {
    expect(recordProblems(made())).toEqual([]);
    expect(recordProblems(JSON.parse(recordText(made())) as SignOffRecord)).toEqual([]);
    expect(recordText(made())).not.toMatch(/\n/);
  });

  it('does not hold when a word of the content is another', () => {
    expect(changed((record) => put(record.versions[0]?.content.shared ?? {}, 'copy', 'Five hours of sun.'))).toEqual([
      'version 1: its digests are not those of its content',
    ]);
    expect(changed((record) => put(record.versions[0]?.content.shared.media[0] ?? {}, 'hash', 'cd'.repeat(32)))).toHaveLength(1);
  });

  it('does not hold when a decision says something else, is left out between, or is put last', () => {
    expect(changed((record) => put(record.decisions[0]?.record ?? {}, 'verdict', 'approve'))).toEqual([
      'decision 2: its link of the chain does not hold',
    ]);
    expect(changed((record) => put(record.decisions[1] ?? {}, 'before', CHAIN_START))).toContain(
      'decision 3: it does not follow the one before',
    );
    expect(changed((record) => put(record, 'decisions', [...record.decisions].reverse()))).toContain('decision 2: it is out of order');
    expect(changed((record) => put(record.chain, 'head', CHAIN_START))).toEqual(['the chain does not end with its last decision']);
    expect(changed((record) => put(record.chain, 'sequence', 2))).toContain('decision 3: it lies beyond the chain');
  });

  it('does not hold when a decision names a digest of another content, or none', () => {
    const other = digestParts('other', 'piece', CONTENT).shared;
    expect(changed((record) => put(record.decisions[1]?.record ?? {}, 'digests', [other]))).toEqual([
      'decision 3: its link of the chain does not hold',
      'decision 3: it names digests that are not in its version',
    ]);
    expect(changed((record) => put(record.decisions[1]?.record ?? {}, 'digests', []))).toContain(
      'decision 3: it names digests that are not in its version',
    );
  });

  it('of the first shape, whose versions name no scheme, still holds', () => {
    const first = (record: SignOffRecord) => {
      put(record, 'scheme', 'zesting-record-1');
      for (const version of record.versions) Reflect.deleteProperty(version, 'scheme');
    };
    expect(changed(first)).toEqual([]);
    expect(
      changed((record) => {
        first(record);
        put(record.versions[0]?.content.shared ?? {}, 'copy', 'Five hours of sun.');
      }),
    ).toEqual(['version 1: its digests are not those of its content']);
  });

  it('holds under the scheme that a version was digested by, and under no older one', () => {
    const crops = { ['ab'.repeat(32)]: { ratio: '4:5', x: 5000, y: 2500, size: 1000 } };
    const cut = { ...CONTENT, channels: { feed: { ...CONTENT.channels.feed, crops } } };
    const newer = (scheme: string) =>
      changed((record) => {
        const digests = digestParts('client', 'piece', cut);
        put(record, 'versions', [...record.versions, { ...record.versions[0], id: 'v2', number: 2, content: cut, digests, scheme }]);
      });
    expect(newer('zesting-part-2')).toEqual([]);
    expect(newer('zesting-part-1')).toEqual(['version 2: its digests are not those of its content']);
    // a crop put into what was digested before there were any
    expect(changed((record) => put(record.versions[0]?.content.channels['feed'] ?? {}, 'crops', crops))).toHaveLength(1);
    expect(
      changed((record) => {
        put(record.versions[0] ?? {}, 'scheme', 'zesting-part-2');
        put(record.versions[0]?.content.channels['feed'] ?? {}, 'crops', crops);
      }),
    ).toHaveLength(1);
  });

  it('holds with texts besides the copy, and shows one that was put in or changed afterwards', () => {
    const texts = [{ key: 'subject', name: 'Subject', text: 'Rye' }];
    const written = { ...CONTENT, shared: { ...CONTENT.shared, texts } };
    const withTexts = (scheme: string, content = written) =>
      changed((record) => {
        const digests = digestParts('client', 'piece', written);
        put(record, 'versions', [...record.versions, { ...record.versions[0], id: 'v2', number: 2, content, digests, scheme }]);
      });
    expect(withTexts('zesting-part-3')).toEqual([]);
    expect(withTexts('zesting-part-2')).toEqual(['version 2: its digests are not those of its content']);
    const other = { ...written, shared: { ...written.shared, texts: [{ key: 'subject', name: 'Subject', text: 'Wheat' }] } };
    expect(withTexts('zesting-part-3', other)).toEqual(['version 2: its digests are not those of its content']);
    // a text put into what was digested before there were any
    expect(changed((record) => put(record.versions[0]?.content.shared ?? {}, 'texts', texts))).toHaveLength(1);
  });

  it('of another scheme is not judged', () => {
    expect(changed((record) => put(record, 'scheme', 'other'))).toEqual(['unknown scheme: other']);
    expect(changed((record) => put(record.versions[0] ?? {}, 'scheme', 'zesting-part-0'))).toEqual([
      'version 1: unknown scheme: zesting-part-0',
    ]);
    expect(changed((record) => put(record.versions[0] ?? {}, 'scheme', undefined))).toEqual(['version 1: unknown scheme: undefined']);
  });
});
