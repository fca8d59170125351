import { screen, waitFor } from '@testing-library/react';
import type { RequestShape, VerdictShape } from '@zesting/contract';
import { Refusal, showServed, type Answer } from '../../../test-support/served';
import { VerdictCard } from './verdict-card';

const fine: VerdictShape = {
  word: 'ready',
  routeId: 'r1',
  wishOn: '2027-04-12',
  earliestOn: '2027-04-08',
  predictedOn: '2027-04-08',
  beginBy: '2027-04-02',
  slackDays: 2,
  missing: [],
  question: '',
  noticeOn: '2027-03-10',
  keepsNotice: true,
  isLaunch: false,
  skills: [{ skill: 'write', minutes: 120, freeMinutes: 600, people: 1 }],
  helps: [],
  doers: [],
  allowance: { month: '2027-04', lines: [] },
  twins: [],
  clashes: [],
};
const twin = { formatName: null, on: '2027-04-01', likeness: 0.61, sharedWords: ['spring', 'fair'], isInText: false };
const told = { ask: jest.fn(), merge: jest.fn(), attach: jest.fn() };

function show(verdict: Answer, requesterEmail: string | null = 'ann@aaa.test') {
  Object.values(told).forEach((one) => one.mockClear());
  return showServed(
    <VerdictCard
      request={{ id: 'q', requesterEmail } as RequestShape} // what the card looks at
      onAsk={told.ask}
      onMerge={told.merge}
      onAttach={told.attach}
    />,
    { 'GET /requests/q/verdict': verdict },
  );
}
const card = () => screen.findByRole('region', { name: 'Verdict' });

describe('the verdict', () => {
  it('says in one line what counts most, and the figures below', async () => {
    show(fine);
    const text = (await card()).textContent;
    expect(text).toContain('Nothing stands against itIt can be out on Mon 12 Apr');
    expect(text).toContain('2 days to spare');
    expect(text).toContain('write 2 h of 10 h free');
    expect(text).toContain('nothing that the brief needs');
    expect(text).not.toContain('Alike');
  });

  it.each<[string, Partial<VerdictShape>, string[]]>([
    [
      'too soon',
      { word: 'not_by_then', slackDays: -1, helps: [{ stepKey: 'check', title: 'Check', spanDays: null, predictedOn: '2027-04-07' }] },
      ['Not by that day', 'The earliest day is Thu 8 Apr', '1 day too soon', 'Without Check: Wed 7 Apr'],
    ],
    [
      'too late as things stand',
      {
        word: 'later',
        predictedOn: '2027-04-15',
        slackDays: -3,
        helps: [{ stepKey: 'design', title: 'Design', spanDays: 1, predictedOn: '2027-04-13' }],
        doers: [{ title: 'Write', name: 'Fay Moon', isUsual: false, startOn: '2027-04-09', finishOn: '2027-04-09' }],
      },
      [
        'Later, as things stand',
        'After what is taken on already, Thu 15 Apr 2027 is predicted.',
        'earliest Thu 8 Apr 2027, after what is taken on Thu 15 Apr 2027',
        '3 days too soon',
        'Design in 1 day: Tue 13 Apr',
        'Write Fay, Fri 9 Apr',
      ],
    ],
    [
      'over what a month includes',
      {
        allowance: {
          month: '2027-04',
          lines: [
            { formatName: 'Clip', included: 2, used: 2, left: 0, leftThen: -1 },
            { formatName: null, included: 20, used: 6.5, left: 13.5, leftThen: 9 },
          ],
        },
      },
      ['April 2027', 'Clip: 2 of 2 used, 1 over with this', 'Hours: 6.5 of 20 h used, 9 h left with this'],
    ],
    ['to the day', { slackDays: 0 }, ['to the day']],
    ['no day', { wishOn: null, slackDays: null }, ['No day is asked for.', 'none asked for']],
    ['no route', { routeId: null, earliestOn: null, slackDays: null, skills: [] }, ['no route, so none reckoned']],
    ['short notice', { keepsNotice: false, isLaunch: true }, ['short: from Wed 10 Mar', 'as for a launch']],
    ['nobody can', { skills: [{ skill: 'film', minutes: 60, freeMinutes: 0, people: 0 }] }, ['film 1 h, nobody can']],
    [
      'a day that is taken',
      { word: 'look', clashes: [{ kind: 'blackout', name: 'Stocktaking', pieceId: null }] },
      ['That day is taken.', 'Stocktaking'],
    ],
  ])('tells of %s', async (_name, part, words) => {
    show({ ...fine, ...part });
    const text = (await card()).textContent;
    for (const one of words) expect(text).toContain(one);
  });

  it('hands on the question for what is missing, but not where nobody can be asked', async () => {
    const asked = { ...fine, word: 'ask' as const, missing: ['audience' as const, 'page' as const], question: 'Please tell us.' };
    const { user } = show(asked);
    expect((await card()).textContent).toContain('2 things the brief needs are not told.');
    await user.click(screen.getByRole('button', { name: 'Ask for it…' }));
    expect(told.ask).toHaveBeenCalledWith('Please tell us.');
  });

  it('offers no question to somebody without an address', async () => {
    show({ ...fine, word: 'ask', missing: ['page'], question: 'Please tell us.' }, null);
    expect((await card()).textContent).toContain('1 thing the brief needs is not told.');
    expect(screen.queryByRole('button', { name: 'Ask for it…' })).toBeNull();
  });

  it('offers with each thing alike what can be done about it', async () => {
    const { user } = show({
      ...fine,
      word: 'look',
      twins: [
        { ...twin, kind: 'piece', id: 'a', title: 'Fair clip', state: 'making', formatName: 'Clip' },
        { ...twin, kind: 'piece', id: 'b', title: 'Old fair', state: 'shelved', isInText: true },
        { ...twin, kind: 'request', id: 'c', title: 'Fair again', state: 'new' },
        { ...twin, kind: 'request', id: 'd', title: 'Fair no', state: 'declined' },
      ] as VerdictShape['twins'],
    });
    expect((await card()).textContent).toContain('4 things alike are there.');
    expect(screen.getAllByText(/61 %: spring, fair/)).toHaveLength(3);
    expect(screen.getAllByText(/61 % in its text: spring, fair/)).toHaveLength(1);
    await user.click(screen.getByRole('button', { name: 'Put it to this: “Fair clip”' }));
    await user.click(screen.getByRole('button', { name: 'Merge with it: “Fair again”' }));
    expect([told.attach.mock.calls, told.merge.mock.calls]).toEqual([[['a']], [['c']]]);
    expect(screen.queryByRole('button', { name: /Old fair|Fair no/ })).toBeNull();
  });

  it('is reckoned anew by another route, and says when it cannot be', async () => {
    let isAway = false;
    const { calls, user } = show(({ path }) =>
      isAway ? new Refusal(500, { code: 'http.unexpected' }) : { ...fine, routeId: path.endsWith('routeId=r2') ? 'r2' : 'r1' },
    );
    await card();
    await screen.findByRole('option', { name: 'Clip' });
    await user.selectOptions(screen.getByRole('combobox', { name: 'judged as' }), 'Clip');
    await waitFor(() => expect(calls.some(({ path }) => path === '/requests/q/verdict?routeId=r2')).toBe(true));
    await waitFor(() => expect(screen.getByRole('combobox', { name: 'judged as' })).toHaveValue('r2'));
    isAway = true;
    await user.selectOptions(screen.getByRole('combobox', { name: 'judged as' }), 'Still');
    expect(await screen.findByText(/Something went wrong/)).toBeInTheDocument();
  });
});
