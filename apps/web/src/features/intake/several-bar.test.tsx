import { screen, waitFor } from '@testing-library/react';
import type { RequestRow } from '@zesting/contract';
import { toast, Toaster } from 'sonner';
import { Refusal, showServed, type Answer } from '../../../test-support/served';
import { SeveralBar } from './several-bar';

const row = (id: string, title: string) => ({ id, title, clientId: 'c1', wishOn: null, takes: { routeId: 'r1' } }) as unknown as RequestRow; // what the bar looks at
const onDone = jest.fn();
const show = (answers: Record<string, Answer>, rows = [row('a', 'Fern'), row('b', 'Loaf'), row('c', 'Oven')]) =>
  showServed(
    <>
      <SeveralBar rows={rows} onDone={onDone} />
      <Toaster />
    </>,
    answers,
  );

describe('several requests', () => {
  afterEach(() => {
    onDone.mockClear();
    toast.dismiss();
  });

  it('are declined with one reason, and taken up again', async () => {
    const all = Object.fromEntries(
      ['a', 'b', 'c'].flatMap((id) => [`POST /requests/${id}/decline`, `POST /requests/${id}/reopen`].map((call) => [call, {}])),
    );
    const { sent, user } = show(all);
    await user.click(await screen.findByRole('button', { name: 'Decline…' }));
    await user.click(screen.getByRole('button', { name: 'Decline and send' }));
    expect(screen.getByText('Say why: those who asked read it.')).toBeInTheDocument();
    await user.type(screen.getByLabelText(/Reason for all/), ' Too late. ');
    await user.click(screen.getByRole('button', { name: 'Decline and send' }));
    await screen.findByText('3 requests declined');
    expect(sent('POST').map(({ path, body }) => [path, body])).toEqual(
      ['a', 'b', 'c'].map((id) => [`/requests/${id}/decline`, { reason: 'Too late.' }]),
    );
    expect(onDone).toHaveBeenCalled();
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(
        sent('POST')
          .slice(3)
          .map(({ path }) => path),
      ).toEqual(['a', 'b', 'c'].map((id) => `/requests/${id}/reopen`)),
    );
  });

  it('are given to somebody; one that cannot be is told, and keeps none of the others back', async () => {
    const { sent, user } = show({
      'PUT /requests/a/owner': {},
      'PUT /requests/b/owner': new Refusal(409, { code: 'request.already_decided' }),
      'PUT /requests/c/owner': {},
    });
    await user.selectOptions(
      await screen.findByRole('combobox', { name: 'Answered for by' }),
      await screen.findByRole('option', { name: 'Max' }),
    );
    await screen.findByText('2 requests given');
    expect(sent('PUT').map(({ body }) => body)).toEqual(Array(3).fill({ ownerId: 'me' }));
    expect(screen.getByRole('alert')).toHaveTextContent(/^“Loaf”: /);
    expect(onDone).not.toHaveBeenCalled();
  });

  it('are accepted by what their forms say, but not where nothing is said; what was accepted is taken back together', async () => {
    const { sent, user } = show({ 'POST /requests/a/accept': { pieceIds: ['p'] }, 'POST /requests/a/reopen': {} }, [
      row('a', 'Fern'),
      { ...row('b', 'Loaf'), takes: {} },
    ]);
    await user.click(await screen.findByRole('button', { name: 'Accept' }));
    await screen.findByText('1 request accepted');
    expect(screen.getByRole('alert')).toHaveTextContent('“Loaf”: Choose a route first: its form says none.');
    expect(sent('POST').map(({ path, body }) => [path, body])).toEqual([
      ['/requests/a/accept', { title: 'Fern', routeId: 'r1', pillarId: null, channelIds: ['blog'], wishOn: null, notes: '' }],
    ]);
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(sent('POST')[1]?.path).toBe('/requests/a/reopen'));
  });

  it('cannot be meant where none is ticked', async () => {
    show({}, []);
    expect(await screen.findByRole('button', { name: 'Decline…' })).toBeDisabled();
    expect(screen.getByRole('combobox', { name: 'Answered for by' })).toBeDisabled();
  });
});
