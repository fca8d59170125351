import { screen, waitFor, within } from '@testing-library/react';
import type { DutyDayShape, DutyShape, MyDutyShape } from '@zesting/contract';
import { showServed } from '../../../test-support/served';
import { OwnDuties } from '../../parts/own-duties';
import { DutiesPage } from './duties-page';

// ids as the contract asks for them
const [ME, CLIENT, ROUTE, BLOG] = [1, 2, 3, 4].map((number) => `00000000-0000-4000-8000-00000000000${number}`) as [
  string,
  string,
  string,
  string,
];
const KNOWN = {
  'GET /session': {
    personId: ME,
    name: 'Max',
    role: 'manager',
    zone: 'Europe/London',
    todayOn: '2027-03-01',
    agency: { name: 'Agency', markerKinds: [] },
  },
  'GET /clients': [
    {
      id: CLIENT,
      code: 'AAA',
      name: 'Aaa & Sons',
      colour: 1,
      usualTime: '09:00',
      channels: [{ id: BLOG, kind: 'blog', name: 'Blog' }],
      pillars: [],
      contacts: [],
    },
  ],
  'GET /routes': [{ id: ROUTE, name: 'Still', formatId: 'f1', formatName: 'Still', steps: ['Write', 'Check'], optional: [] }],
  'GET /people': [{ id: ME, name: 'Max', role: 'manager', active: true }],
};

const day = (on: string, more: Partial<DutyDayShape> = {}): DutyDayShape => ({
  on,
  startOn: on,
  dueOn: on,
  doer: 'lead',
  state: 'ahead',
  ticks: [],
  by: null,
  pieceId: null,
  ...more,
});
const duty = (more: Partial<DutyShape> = {}): DutyShape => ({
  id: 'd1',
  clientId: CLIENT,
  title: 'Answer the comments',
  remark: '',
  checklist: [],
  rule: 'FREQ=DAILY',
  fromOn: '2027-02-01',
  untilOn: null,
  leadDays: 0,
  leadId: ME,
  leadName: 'Max',
  secondId: null,
  secondName: null,
  minutes: 30,
  piece: null,
  version: 3,
  todayOn: '2027-03-01',
  minutesAMonth: 630,
  next: day('2027-03-01', { state: 'due' }),
  missed: 0,
  lastMissedOn: null,
  uncoveredOn: [],
  ...more,
});
const showPage = (duties: DutyShape[], more = {}, at = '/plan/duties') =>
  showServed(<DutiesPage />, { ...KNOWN, 'GET /duties': { duties, hidden: 0 }, ...more }, at);

describe('the duties', () => {
  it('are told with how often, whose, what they take, what was missed and where nobody is there', async () => {
    showPage([
      duty({ missed: 1, lastMissedOn: '2027-02-26', uncoveredOn: ['2027-03-08', '2027-03-09'] }),
      duty({
        id: 'd2',
        clientId: null,
        title: 'Look at next week',
        secondName: 'Sia',
        minutesAMonth: 195,
        next: day('2027-03-05', { state: 'open' }),
      }),
    ]);
    const list = await screen.findByRole('list', { name: 'Duties' });
    const [first, second] = within(list).getAllByRole('listitem');
    expect(first).toHaveTextContent('AAA');
    expect(first).toHaveTextContent('today');
    expect(first).toHaveTextContent('1 missed');
    expect(first).toHaveTextContent('Nobody is there on 2 days of the next six weeks');
    expect(second).toHaveTextContent('Agency');
    expect(second).toHaveTextContent('Max, else Sia');
    expect(screen.getByText(/2 duties, about 13 h 45 min of work a month. 1 missed/)).toBeInTheDocument();
  });

  it('are added with what they need, and nothing is sent without a name', async () => {
    const { user, sent } = showPage([], { 'POST /duties': { dutyId: 'd9' } });
    await user.click(await screen.findByRole('button', { name: 'Add a duty' }));
    const dialog = within(await screen.findByRole('dialog'));
    await user.click(dialog.getByRole('button', { name: 'Add it' }));
    expect(await dialog.findByText('Say what is to be done.')).toBeInTheDocument();
    expect(sent('POST')).toEqual([]);
    await user.type(dialog.getByLabelText('What (needed)'), 'The letter');
    await user.selectOptions(dialog.getByLabelText('For'), CLIENT);
    await user.click(dialog.getByLabelText('Makes a piece each time'));
    await user.type(dialog.getByLabelText('Checklist'), 'Dates{Enter}{Enter}Names');
    await user.click(dialog.getByRole('button', { name: 'Add it' }));
    await waitFor(() =>
      expect(sent('POST')).toMatchObject([
        {
          path: '/duties',
          body: {
            title: 'The letter',
            clientId: CLIENT,
            rule: 'FREQ=WEEKLY;BYDAY=FR',
            fromOn: '2027-03-01',
            leadId: ME,
            leadDays: 14,
            checklist: ['Dates', 'Names'],
            piece: { routeId: ROUTE, channelIds: [BLOG], pillarId: null },
          },
        },
      ]),
    );
  });

  it('are changed at the version that was seen, and keep their client', async () => {
    const { user, sent } = showPage([duty()], { 'PUT /duties/d1': {} }, '/plan/duties?open=edit:d1');
    const dialog = within(await screen.findByRole('dialog'));
    expect(dialog.getByLabelText('For')).toBeDisabled();
    await user.click(dialog.getByRole('button', { name: 'Once' }));
    await user.click(dialog.getByRole('button', { name: 'Change it' }));
    await waitFor(() => expect(sent('PUT')).toMatchObject([{ path: '/duties/d1', version: '3', body: { rule: null, clientId: CLIENT } }]));
  });

  it('show their days, of which each can be done or left out, and taken back', async () => {
    const days = [day('2027-02-26', { state: 'missed', ticks: [0] }), day('2027-03-01', { state: 'done', by: 'Sia' }), day('2027-03-02')];
    const { user, sent } = showPage(
      [duty({ checklist: ['A', 'B'], missed: 2, lastMissedOn: '2027-02-26' })],
      { 'GET /duties/d1/days': { days }, 'PUT /duties/d1/day': {}, 'POST /duties/d1/missed': {} },
      '/plan/duties?open=days:d1',
    );
    const dialog = within(await screen.findByRole('dialog'));
    await user.click(await dialog.findByRole('button', { name: 'Done on Fri 26 Feb 2027' }));
    await user.click(dialog.getByRole('button', { name: 'Take back Mon 1 Mar 2027' }));
    await user.click(dialog.getByRole('button', { name: 'Leave all of them out' }));
    expect(dialog.getByRole('button', { name: 'Leave out Tue 2 Mar 2027' })).toBeInTheDocument();
    expect(dialog.queryByRole('button', { name: 'Done on Tue 2 Mar 2027' })).not.toBeInTheDocument(); // it is still to come
    await waitFor(() => expect(sent('POST')).toMatchObject([{ body: { untilOn: '2027-02-26' } }]));
    expect(sent('PUT').map(({ body }) => body)).toEqual([
      { on: '2027-02-26', mark: 'done', ticks: [0] },
      { on: '2027-03-01', mark: 'open', ticks: [] },
    ]);
  });
});

describe('own duties on the desk', () => {
  const mine = (more: Partial<MyDutyShape> = {}): MyDutyShape => ({
    dutyId: 'd1',
    clientId: 'c1',
    clientCode: 'AAA',
    clientName: 'Aaa & Sons',
    clientColour: 1,
    title: 'Answer the comments',
    remark: 'Within the hour.',
    checklist: ['Feed', 'Blog'],
    minutes: 30,
    day: day('2027-03-01', { state: 'due', ticks: [1] }),
    missedBefore: 2,
    ...more,
  });
  const showOwn = (rows: MyDutyShape[], at = '/') =>
    showServed(<OwnDuties />, { 'GET /duties/mine': { todayOn: '2027-03-01', rows }, 'PUT /duties/d1/day': {} }, at);

  it('are ticked off line by line, and done as a whole', async () => {
    const { user, sent } = showOwn([mine()]);
    expect(await screen.findByText('2 earlier ones missed')).toBeInTheDocument();
    expect(screen.getByLabelText('Blog')).toBeChecked();
    await user.click(screen.getByLabelText('Feed'));
    await user.click(await screen.findByRole('button', { name: 'Done: Answer the comments, Mon 1 Mar 2027' }));
    await waitFor(() => expect(sent('PUT')).toHaveLength(2));
    expect(sent('PUT')[0]?.body).toEqual({ on: '2027-03-01', mark: 'open', ticks: [1, 0] });
    expect(sent('PUT')[1]?.body).toMatchObject({ mark: 'done' });
  });

  it('are not there where there are none, or none of the client chosen', async () => {
    showOwn([mine()], '/?client=BBB');
    await waitFor(() => expect(screen.queryByText('…')).not.toBeInTheDocument());
    expect(screen.queryByText('Your duties')).not.toBeInTheDocument();
  });
});
