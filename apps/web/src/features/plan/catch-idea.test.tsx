import { screen, waitFor } from '@testing-library/react';
import { Refusal, showServed } from '../../../test-support/served';
import { CatchIdea } from './catch-idea';

const CATCH = 'POST /ideas';
const caught = { ideaId: 'i1', covered: [] };
const page = { 'GET /ideas/i1': { id: 'i1', attached: [] } };

describe('an idea in one line', () => {
  it('is caught with the address that stands in it, for the client that is chosen', async () => {
    const { sent, user } = showServed(<CatchIdea />, { [CATCH]: caught, ...page });
    await user.type(await screen.findByRole('textbox'), 'Bells at night https://bells.test/night');
    await user.selectOptions(screen.getByRole('combobox', { name: 'For whom' }), 'c2');
    await user.click(screen.getByRole('button', { name: 'Catch' }));
    expect(await screen.findByText('“Bells at night” is on the shelf.')).toBeInTheDocument();
    expect(sent('POST')[0]?.body).toEqual({ title: 'Bells at night', link: 'https://bells.test/night', clientId: 'c2' });
    expect(screen.getByRole('textbox')).toHaveValue('');
    expect(screen.getByRole('button', { name: /Picture, sound or file/ })).toBeInTheDocument();
  });

  it('stays where catching fails, and what is sent again is the same', async () => {
    let tries = 0;
    const { sent, user } = showServed(<CatchIdea />, {
      [CATCH]: () => (++tries === 1 ? new Refusal(503, { code: 'http.try_again' }) : caught),
      ...page,
    });
    await user.type(await screen.findByRole('textbox'), 'Bells');
    await user.click(screen.getByRole('button', { name: 'Catch' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('What you typed is still here.');
    expect(screen.getByRole('textbox')).toHaveValue('Bells');
    await user.click(screen.getByRole('button', { name: 'Catch' }));
    await waitFor(() => expect(screen.getByRole('textbox')).toHaveValue(''));
    expect(sent('POST').map(({ body }) => body)).toEqual([
      { title: 'Bells', link: null, clientId: null },
      { title: 'Bells', link: null, clientId: null },
    ]);
  });
});
