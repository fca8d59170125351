import { getDay, getTimeOfDay, MONDAY_TO_FRIDAY, toCalendar, type PlanDoer } from '@zesting/core';
import { AGENCY_KEY, clientKey, type CalendarBook } from './calendars.js';
import { pieceState, stepsAtHand, type PieceSource, type StepSource } from './piece-state.js';

const doer = (zone: string, todayOn: string, off: string[] = []): PlanDoer => ({
  calendar: toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, holidays: off.map(getDay) }),
  zone,
  todayOn: getDay(todayOn),
  todayCounts: true,
});

/** Monday 1 March 2027, nine in the morning in London, ten at night in Auckland. */
const book: CalendarBook = {
  now: '2027-03-01T09:00:00Z',
  tightDays: 0,
  doers: {
    [AGENCY_KEY]: doer('Europe/London', '2027-03-01'),
    maker: doer('Europe/London', '2027-03-01', ['2027-03-04']),
    never: { ...doer('Europe/London', '2027-03-01'), calendar: toCalendar({ weeklyMinutes: [] }) },
    [clientKey('c')]: doer('Pacific/Auckland', '2027-03-01'),
  },
  clients: new Map([['c', { zone: 'Pacific/Auckland', usualTime: getTimeOfDay('08:00'), todayOn: getDay('2027-03-01') }]]),
};

const step = (id: string, kind: StepSource['kind'], after: string[], more: Partial<StepSource> = {}): StepSource => ({
  id,
  title: id,
  kind,
  doer_id: kind === 'sign_off' ? null : 'maker',
  span_days: 1,
  same_day: false,
  predecessor_ids: after,
  started_on: null,
  finished_on: null,
  pinned_finish_on: null,
  predicted_finish_on: null,
  obstructed: false,
  asked_due_on: null,
  ...more,
});
const done = { started_on: '2027-02-22', finished_on: '2027-02-23' };

const source = (overrides: Partial<PieceSource> = {}): PieceSource => ({
  id: 'p',
  client_id: 'c',
  wish_on: '2027-03-16',
  shelved: false,
  digests: { shared: 's1', channels: { feed: 'f1', blog: 'b1' } },
  policy: { kind: 'any' },
  approver_ids: ['ana'],
  gone_ids: [],
  sent_round: 1,
  in_packet: false,
  packet_due_on: null,
  last_outcome: null,
  sent: [],
  decisions: [],
  steps: [step('make', 'make', []), step('check', 'check', ['make']), step('sign-off', 'sign_off', ['check'], { span_days: 2 })],
  placements: [],
  ...overrides,
});
const signed = {
  sent: [{ shared: 's1', channels: { feed: 'f1', blog: 'b1' } }],
  decisions: [{ contactId: 'ana', verdict: 'approve' as const, digests: ['s1', 'f1', 'b1'], round: 1 }],
};
const allDone = source().steps.map((each) => ({ ...each, ...done }));
const placement = (id: string, channel_id: string, publish_at: string | null, more = {}) => ({
  id,
  channel_id,
  publish_at,
  out: false,
  cancelled: false,
  lead_days: 0,
  at_time: null,
  usual_time: null,
  late_minutes: null,
  sending: null,
  ...more,
});

describe('what follows from a piece', () => {
  it('aims at the wish date at the client’s usual time, seen from where each doer is', () => {
    const state = pieceState(source(), book);
    expect([state.aimOn, state.aimAt, state.stage, state.list]).toEqual(['2027-03-16', '2027-03-15T19:00:00Z', 'planned', 'on_course']);
    expect(state.plan?.steps.map((planned) => planned.latestFinishOn)).toEqual(['2027-03-10', '2027-03-11', '2027-03-15']);
    expect(state.wheel.map((segment) => segment.state)).toEqual(['current', 'waiting', 'waiting']);
  });

  it('plans what the client is to bring on its own working days, and says when that is to be asked or past due', () => {
    // Auckland keeps Wednesday the 3rd free, London does not: what is brought ends on Tuesday
    const free: CalendarBook = {
      ...book,
      doers: { ...book.doers, [clientKey('c')]: doer('Pacific/Auckland', '2027-03-01', ['2027-03-03']) },
    };
    const bring = (more: Partial<StepSource> = {}) => [
      step('bring', 'deliver', [], { doer_id: null, span_days: 2, ...more }),
      step('make', 'make', ['bring'], { span_days: 2, doer_id: null }),
    ];
    const state = (more: Partial<StepSource> = {}) => pieceState(source({ wish_on: '2027-03-09', steps: bring(more) }), free);
    expect(state().plan?.steps.map(({ latestStartOn, latestFinishOn }) => [latestStartOn, latestFinishOn])).toEqual([
      ['2027-03-01', '2027-03-02'],
      ['2027-03-04', '2027-03-05'],
    ]);
    expect([state().list, state().wheel[0]?.state]).toEqual(['to_be_asked', 'current']);
    expect(state({ asked_due_on: '2027-03-01' }).list).toBe('on_course');
    expect(state({ asked_due_on: '2027-02-26' }).list).toBe('with_client_past_due');
    expect(state({ asked_due_on: '2027-02-26', ...done }).list).toBe('no_doer'); // it has come: what follows has nobody
  });

  it('aims at the earliest placement not yet out, with its channel’s lead', () => {
    const placements = [
      placement('l1', 'feed', '2027-03-20T19:00:00Z', { out: true }),
      placement('l2', 'blog', '2027-03-24T19:00:00Z', { lead_days: 2 }),
    ];
    const state = pieceState(source({ placements }), book);
    expect(state.aimOn).toBe('2027-03-25');
    expect(state.plan?.steps.at(-1)?.latestFinishOn).toBe('2027-03-22'); // Wednesday 24, and two working days earlier
  });

  it('will be late when load is predicted to end a step after its latest day, and stands on that list', () => {
    const steps = (predicted_finish_on: string) => [step('make', 'make', [], { predicted_finish_on }), ...source().steps.slice(1)];
    const state = (on: string) => pieceState(source({ steps: steps(on) }), book);
    expect([state('2027-03-10').danger, state('2027-03-10').list]).toEqual(['fine', 'on_course']);
    expect([state('2027-03-11').danger, state('2027-03-11').list]).toEqual(['will_be_late', 'will_be_late']);
    expect(pieceState(source({ steps: steps('2027-03-11'), wish_on: '2027-03-03' }), book).danger).toBe('overdue'); // what is worse comes first
  });

  it('has no aim once everything is out, and no list', () => {
    const state = pieceState(
      source({ ...signed, steps: allDone, placements: [placement('l1', 'feed', '2027-02-20T19:00:00Z', { out: true })] }),
      book,
    );
    expect([state.aimOn, state.stage, state.list, state.earliestPublishOn]).toEqual([null, 'published', null, null]);
  });

  it('schedules placement by placement, as their parts are signed', () => {
    const placements = [
      placement('l1', 'feed', '2027-03-20T19:00:00Z'),
      placement('l2', 'blog', '2027-03-24T19:00:00Z'),
      placement('l3', 'blog', null, { cancelled: true }),
    ];
    const voided = pieceState(
      source({ ...signed, steps: allDone, placements, digests: { shared: 's1', channels: { feed: 'f1', blog: 'b2' } } }),
      book,
    );
    expect(voided.placements).toEqual({ l1: 'scheduled', l2: 'pencilled', l3: 'cancelled' });
    expect([voided.list, voided.signOff.channels['blog']]).toEqual(['changed_after_sign_off', 'voided']);
    const whole = pieceState(source({ ...signed, steps: allDone, placements }), book);
    expect([whole.stage, whole.list]).toEqual(['scheduled', 'on_course']);
  });

  it('calls a placement missed from the moment its time has passed unsent', () => {
    const at = (publish_at: string) =>
      pieceState(source({ ...signed, steps: allDone, placements: [placement('l1', 'feed', publish_at)] }), book);
    expect(at('2027-03-01T09:00:01Z').placements['l1']).toBe('scheduled');
    expect([at('2027-03-01T09:00:00Z').placements['l1'], at('2027-03-01T09:00:00Z').list]).toEqual(['missed', 'trouble']);
  });

  it('goes past due by the client’s date, not by ours', () => {
    const steps = [...allDone.slice(0, 2), step('sign-off', 'sign_off', ['check'], { started_on: '2027-02-24' })];
    const state = (due: string, now = book) => pieceState(source({ steps, in_packet: true, packet_due_on: due }), now).list;
    expect(state('2027-03-01')).toBe('with_client');
    const tomorrowThere: CalendarBook = {
      ...book,
      clients: new Map([['c', { zone: 'Pacific/Auckland', usualTime: getTimeOfDay('08:00'), todayOn: getDay('2027-03-02') }]]),
    };
    expect(state('2027-03-01', tomorrowThere)).toBe('with_client_past_due');
  });

  it('draws late, blocked and waiting segments', () => {
    const steps = [step('write', 'make', [], { doer_id: null }), step('design', 'make', []), step('check', 'check', ['write', 'design'])];
    const state = pieceState(source({ steps, wish_on: '2027-03-02' }), book);
    expect(state.wheel.map((segment) => [segment.state, segment.lateDays])).toEqual([
      ['late', 2],
      ['late', 2],
      ['waiting', 0],
    ]);
    expect(pieceState(source({ steps, wish_on: '2027-04-20' }), book).wheel.map((segment) => segment.state)).toEqual([
      'blocked',
      'current',
      'waiting',
    ]);
    // what stands in the way blocks what is at hand, and is told of what comes later and of what is late, too
    const stopped = steps.map((one) => ({ ...one, obstructed: one.id !== 'write' }));
    expect(pieceState(source({ steps: stopped, wish_on: '2027-04-20' }), book).wheel).toEqual([
      { title: 'write', state: 'blocked', lateDays: 0 },
      { title: 'design', state: 'blocked', lateDays: 0, obstacle: true },
      { title: 'check', state: 'waiting', lateDays: 0, obstacle: true },
    ]);
    expect(pieceState(source({ steps: stopped, wish_on: '2027-03-02' }), book).wheel[1]).toEqual({
      ...{ title: 'design', state: 'late', lateDays: 2, obstacle: true },
    });
  });

  it('is out of reach, not broken, when somebody on the path never works', () => {
    const state = pieceState(source({ steps: [step('make', 'make', [], { doer_id: 'never' })] }), book);
    expect([state.plan, state.danger, state.list]).toEqual([null, 'out_of_reach', 'out_of_reach']);
  });

  it('has at hand every open step whose predecessors are finished', () => {
    expect([
      ...stepsAtHand([step('a', 'make', [], done), step('b', 'make', ['a']), step('c', 'make', []), step('d', 'check', ['b', 'c'])]),
    ]).toEqual(['b', 'c']);
  });
});
