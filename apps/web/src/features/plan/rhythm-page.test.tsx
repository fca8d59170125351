import { screen, waitFor, within } from '@testing-library/react';
import { showServed } from '../../../test-support/served';
import { RhythmPage } from './rhythm-page';

// ids as the contract asks for them
const [CLIENT, FEED, BLOG] = [1, 2, 3].map((number) => `00000000-0000-4000-8000-00000000000${number}`) as [string, string, string];
const client = {
  id: CLIENT,
  code: 'AAA',
  name: 'Aaa & Sons',
  colour: 1,
  usualTime: '09:00',
  channels: [
    { id: FEED, kind: 'feed', name: 'Feed' },
    { id: BLOG, kind: 'blog', name: 'Blog' },
  ],
  pillars: [],
  contacts: [],
};
const rule = {
  id: 'r',
  channelId: FEED,
  channelName: 'Feed',
  rule: 'FREQ=WEEKLY;BYDAY=TU',
  at: '10:00',
  fromOn: '2027-01-01',
  untilOn: null,
  exceptOn: [],
  skipsHolidays: false,
  pillarId: null,
  formatId: null,
  version: 1,
  nextOn: ['2027-03-02'],
};
const show = (more = {}) =>
  showServed(
    <RhythmPage />,
    {
      'GET /clients': [client],
      [`GET /clients/${CLIENT}/rhythm`]: {
        todayOn: '2027-03-01',
        zone: 'Europe/London',
        rules: [rule],
        ended: 0,
        perWeek: 2,
        perMonth: null,
        audiences: { channels: [{ channelId: FEED, audience: 1000, seen: 50 }], overlap: 30 },
        slotsAhead: [{ channelId: FEED, slots: 2 }],
      },
      ...more,
    },
    '/plan/rhythm?client=AAA',
  );

describe('the rhythm of a client', () => {
  it('says what it reaches, while figures are typed, and keeps them when asked to', async () => {
    const { user, sent } = show({ [`PUT /clients/${CLIENT}/plan/audiences`]: {} });
    const reach = within(await screen.findByRole('form', { name: 'What four weeks of it reach' }));
    // two posts that half of 1,000 see: 1,000 contacts, and 750 who see at least one
    expect(reach.getByRole('row', { name: /^Feed/ })).toHaveTextContent('21,000750');
    expect(reach.queryByRole('button', { name: 'Keep' })).not.toBeInTheDocument();
    await user.clear(reach.getByLabelText('Followers of Feed'));
    await user.type(reach.getByLabelText('Followers of Feed'), '2000');
    expect(reach.getByRole('row', { name: /^Feed/ })).toHaveTextContent('22,0001,500');
    await user.click(reach.getByRole('button', { name: 'Keep' }));
    await waitFor(() =>
      expect(sent('PUT').map(({ body }) => body)).toEqual([
        {
          overlap: 30,
          channels: [
            { channelId: FEED, audience: 2000, seen: 50 },
            { channelId: BLOG, audience: 0, seen: 20 },
          ],
        },
      ]),
    );
  });

  it('has its numbers, and an empty one is none', async () => {
    const { user, sent } = show({ [`PUT /clients/${CLIENT}/plan/numbers`]: {} });
    const numbers = within(await screen.findByRole('form', { name: 'Numbers' }));
    await user.clear(numbers.getByLabelText('pieces a week'));
    await user.type(numbers.getByLabelText('pieces a month'), '12');
    await user.click(numbers.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(sent('PUT').map(({ body }) => body)).toEqual([{ perWeek: null, perMonth: 12 }]));
  });
});
