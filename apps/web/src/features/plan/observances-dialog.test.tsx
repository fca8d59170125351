import { screen, waitFor } from '@testing-library/react';
import type { ClientShape, ObservanceShape } from '@zesting/contract';
import { Refusal, showServed } from '../../../test-support/served';
import { ObservancesDialog } from './observances-dialog';

const client = { id: 'c1', code: 'AAA', name: 'Aaa & Sons' } as ClientShape; // as far as it is looked at
const day = (name: string, more: Partial<ObservanceShape> = {}): ObservanceShape => ({
  on: '2027-03-22',
  name,
  subjects: [],
  from: 'world',
  ownId: null,
  isOfAll: false,
  isTaken: false,
  fit: [],
  ...more,
});
const days = [
  day('World Water Day', { fit: ['water'], subjects: ['rain'] }),
  day('World Radio Day', { on: '2028-02-13' }),
  day('Bell Day', { from: 'own', ownId: 'o1', isTaken: true }),
  day('For all', { from: 'own', ownId: 'o2', isOfAll: true }),
];
const LIST = 'GET /clients/c1/observances';
const TAKE = 'PUT /clients/c1/observances';
const shown = () =>
  screen.getAllByRole('checkbox').map((box) => box.closest('li')?.textContent?.match(/(World \w+ Day|Bell Day|For all)/)?.[0]);

describe('days of note', () => {
  it('that fit come first, with why; all of them are one click, or a subject, away', async () => {
    const { user } = showServed(<ObservancesDialog client={client} onClose={jest.fn()} />, {
      [LIST]: { observances: days, pillars: true },
    });
    expect(await screen.findByText('fits: water')).toBeInTheDocument();
    expect(shown()).toEqual(['World Water Day', 'Bell Day']); // what is taken stays in sight
    await user.click(screen.getByRole('button', { name: 'All' }));
    expect(shown()).toHaveLength(4);
    await user.click(screen.getByRole('button', { name: 'On the calendar' }));
    expect(shown()).toEqual(['Bell Day']);
    await user.click(screen.getByRole('button', { name: 'That fit' }));
    await user.type(screen.getByRole('textbox', { name: 'Name or subject' }), 'radio');
    expect(shown()).toEqual(['World Radio Day']); // what is looked for is found whatever is shown
    await user.clear(screen.getByRole('textbox', { name: 'Name or subject' }));
    await user.type(screen.getByRole('textbox', { name: 'Name or subject' }), 'rain');
    expect(shown()).toEqual(['World Water Day']);
  });

  it('says that there is nothing to hold them against without pillars, and shows all', async () => {
    showServed(<ObservancesDialog client={client} onClose={jest.fn()} />, {
      [LIST]: { observances: days.map((one) => ({ ...one, fit: [] })), pillars: false },
    });
    expect(await screen.findByText(/Once the client has pillars/)).toBeInTheDocument();
    expect(shown()).toHaveLength(4);
  });

  it('are ticked at once, and unticked again where that is refused', async () => {
    const { sent, user } = showServed(<ObservancesDialog client={client} onClose={jest.fn()} />, {
      [LIST]: { observances: days, pillars: true },
      [TAKE]: (made) => ((made.body as { name: string }).name === 'Bell Day' ? new Refusal(409, { code: 'observance.too_many' }) : {}),
    });
    const water = await screen.findByRole('checkbox', { name: /World Water Day/ });
    await user.click(water);
    expect(water).toBeChecked(); // though the list has not followed
    await waitFor(() => expect(sent('PUT')[0]?.body).toEqual({ name: 'World Water Day', isTaken: true }));
    const bell = screen.getByRole('checkbox', { name: /Bell Day/ });
    await user.click(bell);
    await waitFor(() => expect(bell).toBeChecked());
  });

  it('that are for every client are removed by leads alone', async () => {
    const { user } = showServed(<ObservancesDialog client={client} onClose={jest.fn()} />, {
      [LIST]: { observances: days, pillars: true },
    });
    await user.click(await screen.findByRole('button', { name: 'All' }));
    expect(screen.getByRole('button', { name: 'Remove Bell Day from the list' })).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Remove For all from the list' })).toBeNull();
  });
});
