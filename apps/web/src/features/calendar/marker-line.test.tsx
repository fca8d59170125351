import { screen, waitFor } from '@testing-library/react';
import type { MarkerShape } from '@zesting/contract';
import { showServed } from '../../../test-support/served';
import { MarkerLine } from './marker-line';

const marker = (more: Partial<MarkerShape> = {}): MarkerShape => ({
  id: 'm1',
  on: '2027-03-10',
  startOn: '2027-03-10',
  endOn: '2027-03-10',
  name: 'Fair',
  kind: 'event',
  clientId: 'c1',
  kindId: null,
  kindName: null,
  leadDays: 30,
  isBound: false,
  version: 1,
  ...more,
});
const taken = { 'DELETE /markers/m1': {} };

describe('a marker on the calendar', () => {
  it('is taken off at once where nothing hangs on it', async () => {
    const { sent, user } = showServed(<MarkerLine marker={marker()} />, taken);
    await user.click(await screen.findByRole('button', { name: /^AAA Fair/ }));
    await user.click(await screen.findByRole('menuitem', { name: 'Take it off the calendar' }));
    await waitFor(() => expect(sent('DELETE')).toHaveLength(1));
  });

  it('is taken off with what hangs on it only when that is said', async () => {
    const { sent, user } = showServed(<MarkerLine marker={marker({ isBound: true })} />, taken);
    await user.click(await screen.findByRole('button', { name: /^AAA Fair/ }));
    await user.click(await screen.findByRole('menuitem', { name: 'Take it off the calendar…' }));
    expect(await screen.findByRole('dialog', { name: 'Take “Fair” off the calendar?' })).toBeInTheDocument();
    expect(sent('DELETE')).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Take it off' }));
    await waitFor(() => expect(sent('DELETE')).toHaveLength(1));
  });

  it('of the region, or of the agency for who is no lead, is only read', async () => {
    showServed(<MarkerLine marker={marker({ id: null, version: null, kind: 'holiday' })} />, {});
    expect(await screen.findByText(/Fair/)).toBeInTheDocument();
    showServed(<MarkerLine marker={marker({ clientId: null })} />, {});
    await waitFor(() => expect(screen.getAllByText(/Fair/)).toHaveLength(2));
    expect(screen.queryByRole('button')).toBeNull();
  });
});
