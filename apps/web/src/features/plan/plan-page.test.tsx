import { screen, waitFor, within } from '@testing-library/react';
import type { PlanMonthShape, PlanSlotShape, SlotCandidateShape } from '@zesting/contract';
import { propose, type SlottingCase } from '@zesting/core';
import { Refusal, showServed, type Answer } from '../../../test-support/served';
import { PlanPage } from './plan-page';

// there are no workers here: the same is reckoned at once
jest.mock('../../lib/propose', () => ({ proposeInWorker: (whole: SlottingCase) => Promise.resolve(propose(whole)) }));

const slot = (on: string, more: Partial<PlanSlotShape> = {}): PlanSlotShape => ({
  ruleId: 'r',
  channelId: 'feed',
  channelName: 'Feed',
  on,
  at: '09:00',
  pillarId: null,
  formatId: 'f1',
  purpose: null,
  fromStock: false,
  theme: null,
  seasons: [],
  blackout: null,
  isPast: false,
  planned: null,
  ...more,
});
const idea = (id: string, more: Partial<SlotCandidateShape> = {}): SlotCandidateShape => ({
  kind: 'idea',
  id,
  title: `Idea ${id}`,
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
const month = (more: Partial<PlanMonthShape> = {}): PlanMonthShape => ({
  month: '2027-03',
  todayOn: '2027-03-01',
  zone: 'Europe/London',
  hasRhythm: true,
  slots: [],
  beside: [],
  themes: [],
  cycle: null,
  markers: [],
  preparing: [],
  mix: [],
  longestRun: 0,
  longestRunPillarId: null,
  largestGapDays: null,
  asking: 0,
  askingOf: 0,
  numbers: { perWeek: null, perMonth: null, weeks: [], count: 0 },
  candidates: [],
  candidatesHidden: 0,
  routes: [
    { routeId: 'r1', name: 'Still', formatId: 'f1', formatName: 'Still', readyOn: '2027-03-05' },
    { routeId: 'r2', name: 'Clip', formatId: 'f2', formatName: 'Clip', readyOn: '2027-03-12' },
  ],
  ...more,
});
const cost = { formats: [], ofAny: 0, skills: [], untilOn: null };
const filled: Answer = ({ body }) => ({
  slots: (body as { slots: { ruleId: string; on: string }[] }).slots.map(({ ruleId, on }) => ({ ruleId, on, pieceId: 'p', problem: null })),
});
const show = (plan: PlanMonthShape, answers: Record<string, Answer> = {}, at = '/plan?client=AAA&month=2027-03') =>
  showServed(
    <PlanPage />,
    { 'GET /clients/c1/plan': plan, 'GET /clients/c1/plan/cost': cost, 'POST /clients/c1/plan': filled, ...answers },
    at,
  );

describe('a client’s month', () => {
  it('without a rhythm leads to it, and with one that has no slot here says so', async () => {
    show(month({ hasRhythm: false }));
    expect(await screen.findByText('Aaa & Sons has no rhythm yet')).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Set the rhythm' })).toHaveAttribute('href', '/plan/rhythm?client=AAA');
    show(month());
    expect(await screen.findByText('The rhythm has no slot in March 2027')).toBeInTheDocument();
  });

  it('shows a proposal beside what is there, and takes the lines that are left ticked', async () => {
    const taken = slot('2027-03-09', {
      planned: {
        title: 'There already',
        pieceId: 'p0',
        state: 'pencilled',
        stage: 'planned',
        isOnTheme: false,
      } as PlanSlotShape['planned'],
    });
    const slots = [
      taken,
      slot('2027-03-10'),
      slot('2027-03-11'),
      slot('2027-03-12', { blackout: 'Stocktaking' }),
      slot('2027-03-01', { isPast: true }),
    ];
    const { sent, user } = show(
      month({ slots, candidates: [idea('a', { worth: 1 }), idea('b'), idea('late', { readyOn: '2027-04-01' as const })] }),
    );
    await user.click(await screen.findByRole('button', { name: 'Propose the month' }));
    expect(await screen.findByText('2 slots proposed.')).toBeInTheDocument();
    expect(screen.getByText('There already')).toBeInTheDocument();
    expect(screen.getByText('off theme')).toBeInTheDocument();
    expect(screen.getByText('Closed: Stocktaking')).toBeInTheDocument();
    expect(screen.getByText('Nothing went out')).toBeInTheDocument();
    expect(sent('POST')).toEqual([]); // nothing is changed by looking
    await user.click(screen.getByRole('checkbox', { name: /Idea b/ }));
    await user.click(screen.getByRole('button', { name: 'Take 1 of 2' }));
    await waitFor(() =>
      expect(sent('POST').map(({ body }) => body)).toEqual([{ slots: [{ ruleId: 'r', on: '2027-03-10', ideaId: 'a' }] }]),
    );
  });

  it('holds what is placed against the numbers that are wanted', async () => {
    const weeks = [
      { mondayOn: '2027-03-01', count: 3 },
      { mondayOn: '2027-03-08', count: 1 },
    ];
    show(month({ slots: [slot('2027-03-10')], numbers: { perWeek: 2, perMonth: 8, weeks, count: 4 } }));
    const numbers = await screen.findByRole('region', { name: 'Numbers' });
    expect(numbers).toHaveTextContent('4 of 8 pieces this month');
    expect(numbers).toHaveTextContent('1 of 2 weeks have their 2');
  });

  it('seeks the best filling where that is asked for, says how it compares, and can be left', async () => {
    let answer: (found: object) => void = () => undefined;
    const { user } = show(month({ slots: [slot('2027-03-10')], candidates: [idea('a'), idea('b', { worth: 0.9 })] }), {
      'GET /clients/c1/plan/best': () => new Promise<object>((resolve) => (answer = resolve)),
    });
    await user.click(await screen.findByRole('button', { name: 'Propose the month' }));
    await user.click(await screen.findByRole('button', { name: 'Seek the best' }));
    expect(await screen.findByText(/Seeking the best, 0 s of 60/)).toBeInTheDocument();
    const line = { slotId: 'r@2027-03-10', candidateId: 'a', reasons: [], owed: false, inARow: false, likeBeside: true };
    answer({ lines: [line], value: 105, quickValue: 100, isProven: true, milliseconds: 1234 });
    expect(await screen.findByText(/Proven in 1.2 s to be the best, 5.0 % better than the quick one/)).toBeInTheDocument();
    expect(screen.getByRole('checkbox', { name: /Idea a/ })).toBeChecked();
  });

  it('asks first how something is made where neither slot nor idea says it', async () => {
    const { sent, user } = show(
      month({ slots: [slot('2027-03-10', { formatId: null })], candidates: [idea('a')] }),
      {},
      '/plan?client=AAA&month=2027-03&slot=r@2027-03-10',
    );
    await user.click(await screen.findByRole('button', { name: 'Propose the month' }));
    expect(await screen.findByText(/say first how it is made/)).toBeInTheDocument();
    expect(screen.getByRole('checkbox', { name: /Idea a/ })).toBeDisabled();
    expect(screen.getByRole('button', { name: 'Take 0 of 1' })).toBeDisabled();
    const fits = within(await screen.findByRole('region', { name: 'What fits' }));
    await user.selectOptions(fits.getByLabelText('How it is made'), 'Clip');
    expect(fits.getByText(/Begun today it would be ready on/)).toBeInTheDocument();
    await user.click(fits.getByRole('button', { name: 'Put here: “Idea a”' }));
    await waitFor(() =>
      expect(sent('POST').map(({ body }) => body)).toEqual([{ slots: [{ ruleId: 'r', on: '2027-03-10', ideaId: 'a', routeId: 'r2' }] }]),
    );
    expect(screen.getByRole('table', { name: 'Slots of the month' })).toHaveFocus(); // whoever works by keyboard goes on there
  });

  it('fills more slots than are taken at once in several goes', async () => {
    const slots = Array.from({ length: 105 }, (_, index) => slot('2027-03-10', { ruleId: `r${index}` }));
    const candidates = Array.from({ length: 105 }, (_, index) => idea(String(index)));
    const { sent, user } = show(month({ slots, candidates }));
    await user.click(await screen.findByRole('button', { name: 'Propose the month' }));
    await user.click(await screen.findByRole('button', { name: 'Take 105 of 105' }));
    await waitFor(() => expect(sent('POST').map(({ body }) => (body as { slots: unknown[] }).slots.length)).toEqual([100, 5]));
  });

  it('keeps the proposal when it could not be taken', async () => {
    const { user } = show(month({ slots: [slot('2027-03-10')], candidates: [idea('a')] }), {
      'POST /clients/c1/plan': new Refusal(503, { code: 'http.try_again' }),
    });
    await user.click(await screen.findByRole('button', { name: 'Propose the month' }));
    await user.click(await screen.findByRole('button', { name: 'Take 1 of 1' }));
    await waitFor(() => expect(screen.getByRole('button', { name: 'Take 1 of 1' })).toBeEnabled());
    expect(screen.getByText('1 slot proposed.')).toBeInTheDocument();
  });
});
