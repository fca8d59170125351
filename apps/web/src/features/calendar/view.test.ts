import { getDay } from '@zesting/core';
import type { CalendarEntryShape, ClientShape } from '@zesting/contract';
import { colourOf, filterQuery, hiddenCount, step, viewOf, withKind } from './view';

const today = getDay('2026-11-25');
const entry = (on: string | null) =>
  ({ on, channelId: 'c2', channelName: 'Blog', pillarId: 'p1', stage: 'approved' }) as CalendarEntryShape;
const client = {
  code: 'AAA',
  colour: 3,
  channels: [{ id: 'c1' }, { id: 'c2' }],
  pillars: [{ id: 'p1', name: 'In season', colour: 7 }],
} as ClientShape; // the parts that are read

describe('how the calendar is looked at', () => {
  it('is this week and the five to come, by client, with weekends, where the address says nothing or nonsense', () => {
    const view = viewOf(new URLSearchParams('month=2026-13&colour=mood'), today);
    expect(view.weeks).toHaveLength(6);
    expect(view).toMatchObject({
      kind: 'ahead',
      month: '2026-11',
      from: '2026-11-23',
      to: '2027-01-03',
      title: '23 November 2026 – 3 January 2027',
      colouring: 'client',
      weekends: true,
      slots: true,
    });
  });

  it('is a month where the address names one, or asks for this one', () => {
    expect(viewOf(new URLSearchParams('month=2026-10'), today)).toMatchObject({ kind: 'month', month: '2026-10', title: 'October 2026' });
    const view = viewOf(new URLSearchParams('view=month'), today);
    expect(view).toMatchObject({ kind: 'month', month: '2026-11', from: '2026-10-26', to: '2026-12-06' });
    expect(step(new URLSearchParams('month=2026-10'), view, null).toString()).toBe('view=month');
  });

  it('goes from one kind to another and leaves behind what was only of the first', () => {
    expect(withKind(new URLSearchParams('month=2026-10&colour=stage'), 'ahead').toString()).toBe('colour=stage');
    expect(withKind(new URLSearchParams('week=2026-12-07'), 'week').toString()).toBe('week=2026-12-07&view=week');
    expect(withKind(new URLSearchParams('view=week&week=2026-12-07&placement=x'), 'month').toString()).toBe('view=month');
  });

  it('is the week of any of its days, and names both months where it crosses one', () => {
    expect(viewOf(new URLSearchParams('view=week&week=2026-12-02'), today)).toMatchObject({
      from: '2026-11-30',
      to: '2026-12-06',
      title: '30 November – 6 December 2026',
    });
    expect(viewOf(new URLSearchParams('view=week'), today).title).toBe('23 – 29 November 2026');
  });

  it('steps by week or month, keeps the other choices, and comes back to the present', () => {
    const week = new URLSearchParams('view=week&colour=stage');
    const next = step(week, viewOf(week, today), 1);
    expect(next.toString()).toBe('view=week&colour=stage&week=2026-11-30');
    expect(step(next, viewOf(next, today), null).toString()).toBe('view=week&colour=stage');
    expect(step(new URLSearchParams('view=month'), viewOf(new URLSearchParams('view=month'), today), -1).get('month')).toBe('2026-10');
    expect(step(new URLSearchParams(), viewOf(new URLSearchParams(), today), 1).toString()).toBe('week=2026-11-30');
  });

  it('is a quarter of a year from this week on, and steps by as much', () => {
    const search = new URLSearchParams('view=quarter');
    const view = viewOf(search, today);
    expect(view).toMatchObject({ kind: 'quarter', from: '2026-11-23', to: '2027-02-21', title: '23 November 2026 – 21 February 2027' });
    expect(view.weeks).toHaveLength(13);
    expect(step(search, view, 1).toString()).toBe('view=quarter&week=2027-02-22');
    expect(step(search, view, -1).get('week')).toBe('2026-08-24');
    expect(withKind(new URLSearchParams('month=2026-10'), 'quarter').toString()).toBe('view=quarter');
  });

  it('asks for what the address names alone, and for nothing that can be meant by nobody', () => {
    const id = '00000000-0000-4000-8000-000000000001';
    const { filter } = viewOf(new URLSearchParams(`pillar=${id}&stage=approved&format=wrong&campaign=`), today);
    expect(filter).toEqual({ pillar: id, channel: null, format: null, campaign: null, stage: 'approved', theme: null });
    expect(filterQuery(filter)).toBe(`pillarId=${id}&stage=approved`);
    const themed = viewOf(new URLSearchParams('theme=off&days=both'), today);
    expect([filterQuery(themed.filter), themed.days]).toEqual(['theme=off', 'both']);
    expect(viewOf(new URLSearchParams('theme=x&days=x'), today)).toMatchObject({ filter: { theme: null }, days: 'publish' });
    expect(filterQuery(viewOf(new URLSearchParams('stage=done'), today).filter)).toBe('');
  });

  it('says how much stands on hidden weekends', () => {
    const entries = ['2026-11-27', '2026-11-28', '2026-11-29', null].map(entry);
    expect(hiddenCount(entries, viewOf(new URLSearchParams('weekends=off'), today))).toBe(2);
    expect(hiddenCount(entries, viewOf(new URLSearchParams(), today))).toBe(0);
  });

  it('gives each colouring its word', () => {
    expect([colourOf(entry(null), client, 'client'), colourOf(entry(null), client, 'channel').word]).toEqual([
      { step: 3, word: 'AAA' },
      'Blog',
    ]);
    expect([colourOf(entry(null), client, 'pillar').word, colourOf(entry(null), client, 'stage').word]).toEqual(['In season', 'Approved']);
    expect(colourOf(entry(null), client, 'pillar').step).toBe(7);
    expect(colourOf({ ...entry(null), pillarId: null }, client, 'pillar').word).toBe('no pillar');
    const told = { ...entry(null), formatId: 'f1', formatName: 'Still', campaignId: null, campaignName: null };
    expect([colourOf(told, client, 'format').word, colourOf(told, client, 'campaign').word]).toEqual(['Still', 'no campaign']);
    expect(colourOf({ ...told, campaignId: 'g', campaignName: 'Spring' }, client, 'campaign').word).toBe('Spring');
  });

  it('is a year from a month, stepped by twelve, and leaves it for a week', () => {
    const view = viewOf(new URLSearchParams('view=year&month=2027-11'), today);
    expect([view.kind, view.from, view.to, view.title, view.weeks]).toEqual([
      'year',
      '2027-11-01',
      '2028-10-31',
      'November 2027 – October 2028',
      [],
    ]);
    expect(viewOf(new URLSearchParams('view=year'), today).from).toBe(`${today.slice(0, 7)}-01`);
    expect(step(new URLSearchParams('view=year&month=2027-11'), view, 1).toString()).toBe('view=year&month=2028-11');
    expect(step(new URLSearchParams('view=year&month=2027-11'), view, null).toString()).toBe('view=year');
    expect(withKind(new URLSearchParams('view=week&week=2027-03-08'), 'year').toString()).toBe('view=year');
  });
});
