import type { CalendarEntryShape, CalendarShape, MixShape } from '@zesting/contract';
import { whatIf } from './what-if';

const entry = (more: Partial<CalendarEntryShape> = {}): CalendarEntryShape =>
  ({
    id: 'e',
    clientId: 'c',
    pieceId: 'p',
    pieceTitle: 'Bells',
    channelId: 'feed',
    channelName: 'Feed',
    pillarId: 'craft',
    on: null,
    earliestOn: '2027-03-09',
    window: { notBeforeOn: null, notAfterOn: null },
    ...more,
  }) as CalendarEntryShape; // as far as it is looked at
const calendar = (entries: CalendarEntryShape[] = [], markers: object[] = []): CalendarShape =>
  ({ entries, markers, tray: [] }) as unknown as CalendarShape; // likewise
const mix: MixShape = { total: 4, rows: [{ pillarId: 'craft', name: 'Craft', share: 40, count: 1, actual: 25, owed: 1 }] };

describe('what a drop would do', () => {
  const words = (on: string, of = entry(), all = calendar(), known: MixShape | undefined = undefined) =>
    whatIf(of, on, all, known).map(({ kind, words: said }) => `${kind}: ${said}`);

  it('is late before the earliest day, and not on it', () => {
    expect(words('2027-03-08')).toEqual(['late: cannot be ready before Tue 9 Mar 2027']);
    expect(words('2027-03-09')).toEqual([]);
    expect(words('2027-03-08', entry({ earliestOn: null }))).toEqual([]);
  });

  it('clashes with what stands on the channel that day, and with blackouts of the client or the agency', () => {
    const there = [
      entry({ id: 'o', pieceId: 'q', pieceTitle: 'Ropes', on: '2027-03-16' }),
      entry({ id: 'b', channelId: 'blog', on: '2027-03-16' }),
    ];
    expect(words('2027-03-16', entry(), calendar(there))).toEqual(['clash: “Ropes” is on Feed that day']);
    const marked = (clientId: string | null, kind = 'blackout') => calendar([], [{ on: '2027-03-16', kind, name: 'Fair', clientId }]);
    expect(words('2027-03-16', entry(), marked(null))).toEqual(['clash: Blackout, Fair: nothing should go out']);
    expect(words('2027-03-16', entry(), marked('other'))).toEqual([]);
    expect(words('2027-03-16', entry(), marked('c', 'launch'))).toEqual([]);
    expect(words('2027-03-17', entry(), marked('c'))).toEqual([]);
  });

  it('clashes with an embargo, and with its last day; not on either', () => {
    const bound = entry({ earliestOn: null, window: { notBeforeOn: '2027-03-10', notAfterOn: '2027-03-12' } });
    expect(words('2027-03-09', bound)).toEqual(['clash: It may not be out before Wed 10 Mar 2027']);
    expect(['2027-03-10', '2027-03-12'].flatMap((on) => words(on, bound))).toEqual([]);
    expect(words('2027-03-13', bound)).toEqual(['clash: It holds only until Fri 12 Mar 2027']);
  });

  it('adds to the mix of the month that it comes into, once per piece', () => {
    const before = 'mix: Craft in March 2027: 1 of 4 → 2 of 5, 25 → 40 %, of 40 % that it should have';
    expect(words('2027-03-16', entry(), calendar(), mix)).toEqual([before]);
    expect(words('2027-03-16', entry({ on: '2027-02-26' }), calendar(), mix)).toEqual([before]);
    expect(words('2027-03-16', entry({ on: '2027-03-10' }), calendar(), mix)).toEqual([]); // within its month
    expect(words('2027-03-16', entry(), calendar([entry({ id: 'o', channelId: 'blog', on: '2027-03-02' })]), mix)).toEqual([]);
    expect(words('2027-03-16', entry({ pillarId: null }), calendar(), mix)).toEqual([]);
  });
});
