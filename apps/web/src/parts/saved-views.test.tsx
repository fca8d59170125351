import { screen, waitFor, within } from '@testing-library/react';
import type { SavedViewShape } from '@zesting/contract';
import { showServed } from '../../test-support/served';
import { keptQuery, SavedViews } from './saved-views';

const view = (more: Partial<SavedViewShape> = {}): SavedViewShape => ({
  id: 'v1',
  page: 'calendar',
  name: 'Signed by client',
  query: 'colour=stage&stage=approved',
  isShared: false,
  by: 'Max',
  isOwn: true,
  ...more,
});

describe('what a view keeps', () => {
  it('is every choice, whatever its order, and nothing of the moment', () => {
    expect(keptQuery('?stage=approved&colour=stage&week=2027-03-01&open=marker&placement=x&client=AAA')).toBe(
      'client=AAA&colour=stage&stage=approved',
    );
    expect(keptQuery('')).toBe('');
  });
});

describe('the views of a page', () => {
  const open = async (views: SavedViewShape[], at: string, more = {}) => {
    const served = showServed(<SavedViews page="calendar" />, { 'GET /views': { views }, ...more }, at);
    await served.user.click(await screen.findByRole('button', { name: 'Views' }));
    return { ...served, dialog: within(await screen.findByRole('dialog')) };
  };

  it('lead to what they keep; those of others cannot be let go of', async () => {
    const { dialog } = await open(
      [view(), view({ id: 'v2', name: 'All late', query: 'colour=client', isOwn: false, isShared: true, by: 'Lea' })],
      '/calendar?stage=approved&colour=stage',
    );
    const own = await dialog.findByRole('link', { name: 'Signed by client' });
    expect(own).toHaveAttribute('href', '/calendar?colour=stage&stage=approved');
    expect(own).toHaveAttribute('aria-current', 'page');
    expect(dialog.getByText('by Lea')).toBeInTheDocument();
    expect(dialog.getAllByRole('button', { name: /^Let go of/ })).toHaveLength(1);
  });

  it('are kept under a name, as the page is seen now', async () => {
    const { user, sent, dialog } = await open([], '/calendar?colour=pillar&week=2027-03-01', { 'POST /views': { viewId: 'v3' } });
    await user.click(await dialog.findByRole('button', { name: 'Keep it' }));
    expect(await dialog.findByText('Give it a name.')).toBeInTheDocument();
    await user.type(dialog.getByLabelText('Keep this view as'), 'By pillar');
    await user.click(dialog.getByLabelText('Everybody of the agency sees it'));
    await user.click(dialog.getByRole('button', { name: 'Keep it' }));
    await waitFor(() =>
      expect(sent('POST').map(({ body }) => body)).toEqual([
        { page: 'calendar', name: 'By pillar', query: 'colour=pillar', isShared: true },
      ]),
    );
  });
});
