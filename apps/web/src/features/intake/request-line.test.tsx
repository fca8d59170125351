import { screen } from '@testing-library/react';
import type { RequestRow } from '@zesting/contract';
import { showServed } from '../../../test-support/served';
import { RequestLine } from './request-line';

const row: RequestRow = {
  id: 'q',
  number: 7,
  clientId: 'c1',
  title: 'A stall',
  requesterName: 'Ann Other',
  receivedAt: '2027-03-01T09:00:00Z',
  wishOn: '2027-04-12',
  state: 'new',
  way: 'form',
  ownerId: 'me',
  slackDays: 4,
  beginBy: '2027-04-02',
  stands: null,
  age: { days: 1, promised: 2, dueOn: '2027-03-03', isLate: false },
  weight: 1,
  isRead: true,
  takes: {},
};

async function wordsOf(part: Partial<RequestRow>): Promise<string> {
  showServed(
    <ul>
      <RequestLine row={{ ...row, ...part }} isChosen={false} tick={null} />
    </ul>,
    {},
  );
  return (await screen.findByRole('link')).textContent;
}

describe('a request in the list', () => {
  it.each<[string, Partial<RequestRow>, string[], string[]]>([
    ['can wait', {}, ['begin by Fri 2 Apr', 'answer by Wed 3 Mar'], ['counts', 'too soon']],
    ['cannot be by that day', { stands: 'not_by_then', slackDays: -3 }, ['3 days too soon'], ['begin by']],
    ['comes later as things stand', { stands: 'later', slackDays: -1 }, ['1 day later than wished'], ['begin by']],
    ['lacks something', { stands: 'ask' }, ['begin by', 'something missing'], []],
    ['waits too long', { age: { days: 4, promised: 2, dueOn: '2027-03-03', isLate: true } }, ['waits 4 days, 2 promised'], ['answer by']],
    ['is asked by who counts', { weight: 3 }, ['counts most'], []],
    [
      'is decided',
      { state: 'idea', slackDays: null, beginBy: null, age: null },
      ['An idea for later', 'for Mon 12 Apr'],
      ['begin by', 'answer by'],
    ],
  ])('that %s says why', async (_, part, said, unsaid) => {
    const words = await wordsOf(part);
    for (const one of said) expect(words).toContain(one);
    for (const one of unsaid) expect(words).not.toContain(one);
  });
});
