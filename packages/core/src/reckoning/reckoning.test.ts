import fc from 'fast-check';
import { fromDayNumber, getDay } from '../time/index.js';
import {
  compareDesk,
  isOpen,
  pieceStage,
  placementState,
  reckon,
  RECKONING_LISTS,
  type DeskKey,
  type PieceFacts,
  type PlacementFacts,
  type PlacementState,
} from './index.js';

const facts = (overrides: Partial<PieceFacts> = {}): PieceFacts => ({
  shelved: false,
  placements: [],
  signed: false,
  voided: false,
  toBeSent: false,
  inPacket: false,
  returned: false,
  packetDueOn: null,
  clientTodayOn: getDay('2027-03-01'),
  stepBegun: false,
  checkAtHand: false,
  noDoer: false,
  toBeAsked: false,
  materialDueOn: null,
  dated: true,
  danger: 'fine',
  ...overrides,
});

describe('a placement', () => {
  const base: PlacementFacts = {
    publishAt: '2027-03-16T09:00:00Z',
    out: false,
    cancelled: false,
    signed: true,
    passed: false,
    inReach: false,
    sending: null,
  };
  it.each<[string, PlacementFacts]>([
    ['scheduled', base],
    ['pencilled', { ...base, signed: false }],
    ['undated', { ...base, publishAt: null }],
    ['missed', { ...base, passed: true }],
    ['scheduled', { ...base, passed: true, inReach: true }],
    ['missed', { ...base, passed: true, inReach: true, signed: false }],
    ['sending', { ...base, passed: true, sending: 'sending' }],
    ['unsure', { ...base, passed: true, sending: 'unsure', signed: false }],
    ['failed', { ...base, passed: true, sending: 'failed' }],
    ['out', { ...base, out: true, sending: 'failed' }],
    ['cancelled', { ...base, cancelled: true, sending: 'failed' }],
    ['out', { ...base, passed: true, out: true }],
    ['cancelled', { ...base, out: true, cancelled: true }],
  ])('is %s', (expected, placement) => {
    expect(placementState(placement)).toBe(expected);
  });
});

describe('a piece', () => {
  it.each<[string, Partial<PieceFacts>]>([
    ['shelved', { shelved: true, placements: ['out'] }],
    ['published', { placements: ['out', 'cancelled'] }],
    ['scheduled', { placements: ['out', 'scheduled'], signed: true }],
    ['approved', { placements: ['undated', 'scheduled'], signed: true }],
    ['with_client', { inPacket: true }],
    ['in_review', { returned: true, checkAtHand: true }], // a check in a rework round is one like any other
    ['in_production', { returned: true }],
    ['in_review', { checkAtHand: true, stepBegun: true }],
    ['in_production', { stepBegun: true }],
    ['planned', {}],
  ])('is %s', (expected, overrides) => {
    expect(pieceStage(facts(overrides))).toBe(expected);
  });

  it.each<[string, Partial<PieceFacts>]>([
    ['trouble', { placements: ['missed'], danger: 'overdue' }],
    ['out_of_reach', { danger: 'out_of_reach', noDoer: true }],
    ['overdue', { danger: 'overdue', returned: true }],
    ['changed_after_sign_off', { voided: true, returned: true }],
    ['returned', { returned: true, noDoer: true }],
    ['no_doer', { noDoer: true, toBeAsked: true }],
    ['to_be_asked', { toBeAsked: true, materialDueOn: getDay('2027-02-26') }],
    ['with_client_past_due', { materialDueOn: getDay('2027-02-28') }],
    ['on_course', { materialDueOn: getDay('2027-03-01') }],
    ['with_client_past_due', { inPacket: true, packetDueOn: getDay('2027-02-28') }],
    ['with_client', { inPacket: true, packetDueOn: getDay('2027-03-01') }],
    ['to_be_sent', { placements: ['pencilled'], toBeSent: true }],
    ['to_be_sent', { toBeSent: true, dated: false, danger: null }],
    ['signed_undated', { signed: true, placements: ['undated'] }],
    ['undated', { dated: false, danger: null }],
    ['on_course', {}],
  ])('stands on %s', (expected, overrides) => {
    expect(reckon(facts(overrides))).toBe(expected);
  });

  it('stands on exactly one list while open, and on none after', () => {
    const states: PlacementState[] = ['undated', 'pencilled', 'scheduled', 'sending', 'out', 'missed', 'failed', 'unsure', 'cancelled'];
    fc.assert(
      fc.property(
        fc.record({
          shelved: fc.boolean(),
          placements: fc.array(fc.constantFrom(...states), { maxLength: 4 }),
          signed: fc.boolean(),
          voided: fc.boolean(),
          inPacket: fc.boolean(),
          returned: fc.boolean(),
          toBeSent: fc.boolean(),
          noDoer: fc.boolean(),
          dated: fc.boolean(),
          danger: fc.constantFrom(null, 'overdue', 'out_of_reach', 'will_be_late', 'tight', 'fine'),
        }),
        (overrides) => {
          const list = reckon(facts(overrides));
          expect(list === null).toBe(!isOpen(facts(overrides)));
          if (list !== null) expect(RECKONING_LISTS).toContain(list);
        },
      ),
    );
  });
});

describe('the order of the desk', () => {
  const key = fc.record<DeskKey>({
    list: fc.constantFrom(...RECKONING_LISTS),
    lateFromOn: fc.option(fc.integer({ min: 20878, max: 20900 }).map(fromDayNumber)),
    slackDays: fc.option(fc.integer({ min: -5, max: 5 })),
    createdAt: fc.constantFrom('2027-01-01T00:00:00Z', '2027-01-02T00:00:00Z'),
  });

  it('is a total order: opposite both ways, and never round in a ring', () => {
    fc.assert(
      fc.property(key, key, key, (a, b, c) => {
        expect(Math.sign(compareDesk(a, b))).toBe(-Math.sign(compareDesk(b, a)) || 0);
        if (compareDesk(a, b) <= 0 && compareDesk(b, c) <= 0) expect(compareDesk(a, c)).toBeLessThanOrEqual(0);
      }),
    );
  });

  it('puts the more dangerous list first, then what is late sooner', () => {
    const line = (list: DeskKey['list'], lateFromOn: string | null): DeskKey => ({
      list,
      lateFromOn: lateFromOn === null ? null : getDay(lateFromOn),
      slackDays: 0,
      createdAt: '',
    });
    const sorted = [
      line('on_course', '2027-03-01'),
      line('overdue', null),
      line('overdue', '2027-03-05'),
      line('overdue', '2027-03-04'),
    ].sort(compareDesk);
    expect(sorted.map((entry) => [entry.list, entry.lateFromOn])).toEqual([
      ['overdue', '2027-03-04'],
      ['overdue', '2027-03-05'],
      ['overdue', null],
      ['on_course', '2027-03-01'],
    ]);
  });
});
