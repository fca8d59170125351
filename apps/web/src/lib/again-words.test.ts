import type { StockRowShape } from '@zesting/contract';
import { againWords } from './again-words';
import { dayWords } from './format';

// whether a year is told depends on the present
const LAST = dayWords('2027-01-05');

const row = (more: Partial<StockRowShape>): StockRowShape => ({
  pieceId: 'p',
  pieceNumber: 1,
  title: 'Lasting',
  pillarId: null,
  formatId: 'f',
  formatName: 'Still',
  channelId: 'c',
  channelName: 'Photo feed',
  placementId: 'l',
  times: 1,
  lastOn: '2027-01-05',
  fromOn: '2027-03-09',
  timesLeft: null,
  ...more,
});

describe('what is said of a piece of the stock', () => {
  it.each([
    [{}, `1 time, last ${LAST}; rested`],
    [{ fromOn: '2027-03-10' }, `1 time, last ${LAST}; rests until ${dayWords('2027-03-10')}`],
    [{ times: 2, timesLeft: 1 }, `2 times, last ${LAST}; rested, 1 time more`],
    [{ fromOn: null }, `1 time, last ${LAST}; not again`],
  ])('%j', (more, words) => expect(againWords(row(more), '2027-03-09')).toBe(words));
});
