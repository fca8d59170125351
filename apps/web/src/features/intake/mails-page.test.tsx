import { screen, waitFor, within } from '@testing-library/react';
import type { MailRow } from '@zesting/contract';
import { Toaster } from 'sonner';
import { showServed, type Answer } from '../../../test-support/served';
import { MailsPage } from './mails-page';

const mail = (part: Partial<MailRow>): MailRow => ({
  id: 'm1',
  clientId: 'c1',
  fromName: 'Eve',
  fromEmail: 'eve@x.test',
  subject: 'A stall',
  text: 'Would you?',
  files: [],
  receivedAt: '2027-03-01T08:00:00Z',
  state: 'waiting',
  reason: 'unknown_sender',
  answers: null,
  ...part,
});
const show = (answers: Record<string, Answer>, at = '/requests/mails') =>
  showServed(
    <>
      <MailsPage />
      <Toaster />
    </>,
    answers,
    at,
  );

describe('mail set aside', () => {
  it('says why it waits, and is taken or left by one click', async () => {
    const { sent, user } = show({
      'GET /mails': {
        items: [mail({ files: ['a.pdf', 'b.png'] }), mail({ id: 'm2', subject: '', reason: 'other_sender', answers: 'The fair' })],
        nextCursor: null,
      },
      'POST /mails/m1/leave': {},
      'POST /mails/m1/wait': {},
      'POST /mails/m2/take': { requestId: 'r1' },
      'POST /mails/m1/take': { requestId: 'r2' },
    });
    const first = within(await screen.findByRole('article', { name: 'A stall' }));
    expect(first.getByText(/No contact of this client has this address/)).toBeInTheDocument();
    expect(first.getByText('a.pdf, b.png')).toBeInTheDocument();
    const second = within(screen.getByRole('article', { name: 'Without a subject' }));
    expect(second.getByText('It answers a request of somebody else.')).toBeInTheDocument();
    await user.click(first.getByRole('button', { name: 'It is no request' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await user.click(second.getByRole('button', { name: 'Put it to “The fair”' }));
    await screen.findByText('It is put to the request');
    await user.click(first.getByRole('button', { name: '…and let them ask from now on' }));
    await waitFor(() =>
      expect(sent('POST').map(({ path, body }) => [path, body])).toEqual([
        ['/mails/m1/leave', undefined],
        ['/mails/m1/wait', undefined],
        ['/mails/m2/take', { asContact: false }],
        ['/mails/m1/take', { asContact: true }],
      ]),
    );
  });

  it('shows what was left and what machines wrote where that is asked for', async () => {
    const { calls, user } = show({
      'GET /mails': ({ path }) => ({
        items: path.includes('automatic') ? [mail({ state: 'automatic', reason: null })] : [],
        nextCursor: null,
      }),
      'GET /mails/addresses': [{ clientId: 'c1', address: 'aaa@ask.test' }],
    });
    expect(await screen.findByText('aaa@ask.test')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'By machines' }));
    const one = within(await screen.findByRole('article', { name: 'A stall' }));
    expect(one.queryByRole('button', { name: 'It is no request' })).toBeNull();
    expect(one.getByRole('button', { name: 'Take it as a request' })).toBeInTheDocument();
    await waitFor(() => expect(calls.some(({ path }) => path.startsWith('/mails?state=automatic'))).toBe(true));
  });
});
