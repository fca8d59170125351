import type { SendingShape } from '@zesting/contract';
import { sendingWords } from './sending-words';

const sending = (more: Partial<SendingShape>): string =>
  sendingWords(
    {
      state: 'claimed',
      code: null,
      reason: null,
      tries: 0,
      claimedAt: '2027-03-09T10:00:00Z',
      nextAt: null,
      comment: 'none',
      askedBy: null,
      settledBy: null,
      ...more,
    },
    (instant) => instant.slice(11, 16),
  );

describe('words for what is on its way', () => {
  it.each<[string, Partial<SendingShape>]>([
    ['Being sent.', {}],
    [
      'The channel cannot be reached: The connection failed (ECONNREFUSED). Nothing is out. Tried again at 10:00.',
      { code: 'unreachable', reason: 'The connection failed (ECONNREFUSED)', tries: 1, nextAt: '2027-03-09T10:00:05Z' },
    ],
    [
      'The channel did not answer: It took too long to answer. It is asked whether it is out.',
      { state: 'posted', code: 'no_answer', reason: 'It took too long to answer' },
    ],
    ['Taken by the channel; it is asked whether it is out.', { state: 'posted' }],
    ['The channel does not know of it. It may be out or not: look there, and say which.', { state: 'unsure', code: 'not_known' }],
    ['The channel refused it: Too long.', { state: 'failed', code: 'refused', reason: 'Too long. ' }],
    ['Max looked: it is not out.', { state: 'not_out', code: 'said_not_out', settledBy: 'Max' }],
    ['', { state: 'out' }],
  ])('%s', (words, more) => {
    expect(sending(more)).toBe(words);
  });
});
