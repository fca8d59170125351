import { screen, waitFor, within } from '@testing-library/react';
import type { ProposedGiveShape, StaffingOutcomeShape, StaffingProposalShape } from '@zesting/contract';
import { Refusal, showServed, type Answer } from '../../../../test-support/served';
import { ProposePage } from './propose-page';

const give = (stepId: string, more: Partial<ProposedGiveShape> = {}): ProposedGiveShape => ({
  stepId,
  version: 3,
  stepTitle: `Step ${stepId}`,
  pieceId: 'p1',
  pieceTitle: 'Pancakes',
  clientId: 'c1',
  minutes: 90,
  fromName: null,
  personId: 'sia',
  personName: 'Sia',
  why: 'usual',
  cost: null,
  others: [{ personId: 'fay', name: 'Fay', why: 'skill', cost: 4000 }],
  predictedFinishOn: '2027-03-10',
  latestFinishOn: '2027-03-11',
  ...more,
});
const proposal = (more: Partial<StaffingProposalShape> = {}): StaffingProposalShape => ({
  gives: [
    give('s1'),
    give('s2', {
      personId: 'fay',
      personName: 'Fay',
      why: 'skill',
      cost: 2000,
      others: [],
      fromName: 'Ada',
      predictedFinishOn: '2027-03-15',
      minutes: 30,
    }),
  ],
  left: [],
  pieces: [],
  othersLater: 0,
  moreSteps: 0,
  isProven: true,
  milliseconds: 1234,
  currency: 'GBP',
  ...more,
});
const outcome = (more: Partial<StaffingOutcomeShape>): StaffingOutcomeShape => ({ ends: [], pieces: [], othersLater: 0, ...more });
const show = (answer: Answer, more: Record<string, Answer> = {}, at = '/production/load/propose') =>
  showServed(<ProposePage />, { 'GET /staffing/proposal': answer, ...more }, at);

describe('the page that proposes doers', () => {
  it('tells who would take what, why, and when it would end; what is left out is not given', async () => {
    const { user, sent } = show(proposal(), { 'POST /staffing/gives': {}, 'POST /staffing/outcome': outcome({ pieces: [] }) });
    const piece = await screen.findByRole('group', { name: 'Pancakes' });
    expect(within(piece).getByRole('combobox', { name: 'Who takes “Step s1” of “Pancakes”' })).toHaveDisplayValue('Sia, usually does this');
    expect(within(piece).getByText('Ada →')).toBeVisible();
    expect(
      within(piece)
        .getAllByText(/needed Thu 11 Mar/)
        .map((one) => one.className.includes('rhubarb')),
    ).toEqual([false, true]);
    expect(screen.getByRole('region', { name: 'Who gets what' })).toHaveTextContent(
      'Sia1 step, 1 h 30 minFay1 step, 30 minPaid for freelance hours: £20.00',
    );
    expect(screen.getByText(/nothing of this is late/)).toBeVisible();
    await user.click(screen.getByRole('checkbox', { name: /Step s2/ }));
    expect(screen.getByText(/Reckoning what it would come to/)).toBeVisible();
    expect(await screen.findByText(/nothing of this is late/)).toBeVisible();
    expect(screen.getByRole('region', { name: 'Who gets what' })).not.toHaveTextContent('Fay');
    await user.click(screen.getByRole('button', { name: 'Give 1 of 2' }));
    const gives = [{ stepId: 's1', personId: 'sia', version: 3 }];
    await waitFor(() =>
      expect(sent('POST').map(({ path, body }) => [path, body])).toEqual([
        ['/staffing/outcome', { gives }],
        ['/staffing/gives', { gives }],
      ]),
    );
  });

  it('gives to another who is chosen, and tells what that would come to before', async () => {
    const late = outcome({
      ends: [{ stepId: 's1', predictedFinishOn: '2027-03-18', latestFinishOn: '2027-03-11' }],
      pieces: [{ pieceId: 'p1', title: 'Pancakes', clientId: 'c1', was: 0, after: 5 }],
    });
    const { user, sent } = show(proposal(), { 'POST /staffing/gives': {}, 'POST /staffing/outcome': late });
    await user.selectOptions(await screen.findByRole('combobox', { name: /Step s1/ }), 'Fay, has the skill, £40.00');
    expect(await screen.findByRole('region', { name: '1 piece late with it' })).toHaveTextContent('5 working days late then');
    expect(screen.getByText(/Ends Thu 18 Mar/)).toBeVisible();
    expect(screen.getByRole('region', { name: 'Who gets what' })).toHaveTextContent('Fay2 steps, 2 hPaid for freelance hours: £60.00');
    await user.click(screen.getByRole('button', { name: 'Give 2 of 2' }));
    await waitFor(() => expect(sent('POST').at(-1)?.body).toMatchObject({ gives: [{ stepId: 's1', personId: 'fay' }, { stepId: 's2' }] }));
  });

  it('keeps what was chosen where it is refused, and says that nothing was given', async () => {
    const { user } = show(proposal(), { 'POST /staffing/gives': new Refusal(412, { code: 'http.changed_meanwhile' }) });
    await user.click(await screen.findByRole('checkbox', { name: /Step s2/ }));
    await user.click(screen.getByRole('button', { name: 'Give 1 of 2' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('Nothing was given.');
    expect(screen.getByRole('checkbox', { name: /Step s2/ })).not.toBeChecked();
    await user.click(screen.getByRole('button', { name: 'Look again' }));
    expect(await screen.findByRole('checkbox', { name: /Step s2/ })).toBeChecked();
  });

  it('tells what nobody can take and why, and what is late with it', async () => {
    const left = { pieceId: 'p2', pieceTitle: 'Bread', clientId: 'c1', skill: 'film', version: 7, minutes: 60 };
    const { user, sent } = show(
      proposal({
        left: [
          { ...left, stepId: 'l1', stepTitle: 'Shoot', why: 'nobody_able', others: [] },
          { ...left, stepId: 'l2', stepTitle: 'Cut', why: 'no_hours', others: give('s1').others },
        ],
        pieces: [{ pieceId: 'p3', title: 'Rye', clientId: 'c1', was: 0, after: 2 }],
        othersLater: 1,
        moreSteps: 4,
        isProven: false,
      }),
      { 'POST /staffing/gives': {}, 'POST /staffing/outcome': outcome({}) },
    );
    const nobody = await screen.findByRole('region', { name: '2 steps for nobody' });
    expect(nobody).toHaveTextContent('Nobody who may work for them has the skill “film”');
    expect(nobody).toHaveTextContent('Nobody has the hours for it');
    const late = screen.getByRole('region', { name: '2 pieces late with it' });
    expect(late).toHaveTextContent('in time now, 2 working days late then');
    expect(late).toHaveTextContent('One piece of another client becomes later');
    expect(screen.getByText(/without proof that none is better. 4 steps more, due later, are left/)).toBeVisible();
    // whoever has the skill can be given it all the same
    expect(within(nobody).getAllByRole('combobox')).toHaveLength(1);
    await user.selectOptions(within(nobody).getByRole('combobox', { name: 'Who takes “Cut” of “Bread” all the same' }), 'fay');
    await user.click(screen.getByRole('button', { name: 'Give 3 of 3' }));
    await waitFor(() =>
      expect(sent('POST').at(-1)?.body).toMatchObject({ gives: [{}, {}, { stepId: 'l2', personId: 'fay', version: 7 }] }),
    );
  });

  it('asks for the days and the client that the address holds; stopped, it looks again when told to', async () => {
    let times = 0;
    const { user, calls } = show(
      () => (++times === 1 ? new Promise<object>(() => undefined) : proposal({ gives: [] })),
      {},
      '/production/load/propose?client=AAA&weeks=2&given=yes',
    );
    expect(await screen.findByRole('status')).toHaveTextContent(/Looking who could do what, \d s of 60/);
    await waitFor(() => expect(calls.some(({ path }) => path === '/staffing/proposal?to=2027-03-14&given=yes&clientId=c1')).toBe(true));
    await user.click(screen.getByRole('button', { name: 'Stop' }));
    await user.click(await screen.findByRole('button', { name: 'Look again' }));
    expect(await screen.findByText('Nothing to give out')).toBeVisible();
  });
});
