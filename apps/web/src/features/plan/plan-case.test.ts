import { isFree, slotKey, toCase, type PlanMonthShape, type PlanSlotShape, type SlotCandidateShape } from '@zesting/contract';
import { propose } from '@zesting/core';
import { dayWords } from '../../lib/format';
import { filledWith, lacksFormat, misfitWords, reasonWords } from './plan-case';

const slot = (on: string, more: Partial<PlanSlotShape> = {}): PlanSlotShape => ({
  ruleId: 'r',
  channelId: 'feed',
  channelName: 'Feed',
  on,
  at: '09:00',
  pillarId: null,
  formatId: null,
  purpose: null,
  fromStock: false,
  theme: null,
  seasons: [],
  blackout: null,
  isPast: false,
  planned: null,
  ...more,
});
const candidate = (id: string, more: Partial<SlotCandidateShape> = {}): SlotCandidateShape => ({
  kind: 'idea',
  id,
  title: id,
  pillarId: null,
  formatId: null,
  channelIds: null,
  themes: [],
  seasons: [],
  subjectId: null,
  readyOn: null,
  notBeforeOn: null,
  expiresOn: null,
  worth: 0.5,
  hasTurn: false,
  waitsDays: 0,
  pieceId: null,
  ...more,
});
const planned = { pillarId: 'p1' } as PlanSlotShape['planned']; // as much of it as is looked at
const month = (slots: PlanSlotShape[], candidates: SlotCandidateShape[]): PlanMonthShape =>
  ({
    slots,
    candidates,
    mix: [
      { pillarId: 'p1', owed: 2 },
      { pillarId: null, owed: 0 },
    ],
    routes: [
      { formatId: 'f1', readyOn: null },
      { formatId: 'f1', readyOn: '2027-03-10' },
      { formatId: 'f1', readyOn: '2027-03-05' },
    ],
  }) as unknown as PlanMonthShape; // likewise

describe('a month as it is filled', () => {
  it('keeps what stands in a slot, and leaves out slots that are over or closed', () => {
    const slots = [
      slot('2027-03-01', { isPast: true }),
      slot('2027-03-02', { planned }),
      slot('2027-03-03', { blackout: 'Closed' }),
      slot('2027-03-04'),
    ];
    expect(slots.map(isFree)).toEqual([false, false, false, true]);
    const whole = toCase(month(slots, [candidate('a')]));
    expect(whole.slots.map(({ id, taken }) => [id, taken])).toEqual([
      ['r@2027-03-02', { pillarId: 'p1' }],
      ['r@2027-03-04', null],
    ]);
    expect(propose(whole).lines.map(({ slotId }) => slotId)).toEqual(['r@2027-03-04']);
  });

  it('knows what the mix owes, and how soon the first route of a format that can be made is ready', () => {
    expect(toCase(month([], []))).toMatchObject({ owed: { p1: 2 }, readyByFormat: { f1: '2027-03-10' } });
  });
});

const named = {
  pillar: (id: string | null) => (id === 'p1' ? 'Craft' : undefined),
  format: (id: string | null) => (id === 'f1' ? 'Clip' : undefined),
};

describe('why something fits', () => {
  it('is said by what weighs most first, and what everything has is not said', () => {
    const asked = slot('2027-03-04', { theme: 'Spring', pillarId: 'p1', formatId: 'f1' });
    const words = reasonWords(
      [
        { what: 'fills', points: 40 },
        { what: 'waits', points: 3 },
        { what: 'pillar', points: 30 },
        { what: 'format', points: 15 },
        { what: 'theme', points: 25 },
        { what: 'worth', points: 10 },
        { what: 'tight', points: -10 },
      ],
      asked,
      candidate('a', { pillarId: 'p1', formatId: 'f1', waitsDays: 45 }),
      named,
    );
    expect(words).toEqual(['Craft as asked', 'speaks to “Spring”', 'Clip as asked', 'only just in time', 'waits for 6 weeks']);
    expect(
      reasonWords(
        [
          { what: 'worth', points: 16 },
          { what: 'begun', points: 25 },
        ],
        asked,
        candidate('a'),
        named,
      ),
    ).toEqual(['under way already', 'weighed high']);
  });

  it('or does not, is said with the day or name that it is about', () => {
    const asked = slot('2027-03-04', { pillarId: 'p1', formatId: 'f1' });
    const why = (misfit: Parameters<typeof misfitWords>[0], more: Partial<SlotCandidateShape> = {}, ready: string | null = null) =>
      misfitWords(misfit, asked, candidate('a', more), ready, named);
    expect([why('channel'), why('pillar'), why('format'), why('not_ready'), why('not_ready', {}, '2027-03-09')]).toEqual([
      'for another channel',
      'the slot asks for Craft',
      'the slot asks for Clip',
      'cannot be ready by then',
      expect.stringContaining('Tue 9 Mar') as string,
    ]);
    expect([why('too_early', { notBeforeOn: '2027-03-09' }), why('expired', { expiresOn: '2027-03-02' })]).toEqual([
      expect.stringContaining('not before Tue 9 Mar') as string,
      expect.stringContaining('only until Tue 2 Mar') as string,
    ]);
  });
});

it('an idea without a format lacks one where the slot wants none either', () => {
  const lacks = (wanted: string | null, more: Partial<SlotCandidateShape>) =>
    lacksFormat(slot('2027-03-04', { formatId: wanted }), candidate('a', more));
  expect([lacks(null, {}), lacks('f1', {}), lacks(null, { formatId: 'f1' }), lacks(null, { kind: 'piece' })]).toEqual([
    true,
    false,
    false,
    false,
  ]);
});

it('a slot is told by its rule and its day', () => expect(slotKey(slot('2027-03-04'))).toBe('r@2027-03-04'));

describe('what was out before', () => {
  const again = candidate('out', { kind: 'again', notBeforeOn: '2027-03-16', waitsDays: 60 });

  it('fills a slot as what it is', () => {
    expect(filledWith(again)).toEqual({ againId: 'out' });
    expect(filledWith(candidate('i'))).toEqual({ ideaId: 'i' });
    expect(filledWith(candidate('l', { kind: 'piece' }))).toEqual({ placementId: 'l' });
    expect(lacksFormat(slot('2027-03-20'), again)).toBe(false);
  });

  it('is told from what is new', () => {
    const wanted = slot('2027-03-20', { fromStock: true });
    const reasons = [{ what: 'stock', points: 30 }, { what: 'waits', points: 4 }, { what: 'again', points: -30 }] as const; // prettier-ignore
    expect(reasonWords(reasons, wanted, again, named)).toEqual(['from the stock, as asked', 'was out before', 'rests for 8 weeks']);
    expect(misfitWords('too_early', wanted, again, null, named)).toBe(`rests until ${dayWords('2027-03-16')}`);
    expect(misfitWords('stock', wanted, candidate('new'), null, named)).toBe('the slot asks for what was out before');
    const whole = toCase(month([wanted], [candidate('new'), again]));
    expect(propose(whole).lines.map(({ candidateId }) => candidateId)).toEqual(['out']);
  });
});
