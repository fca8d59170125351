import { getDay, toDayNumber, type LoadDay } from '@zesting/core';
import type { App } from '../../platform/app.js';
import { takenHours } from './predict.js';

const on = getDay('2027-03-01');
const load = (minutes: number): LoadDay[] => [{ doer: 'a', on, minutes }];

describe('the hours that are spoken for', () => {
  const answers: (() => Promise<LoadDay[]>)[] = [];
  const ask = jest.fn(() => answers.shift()?.() ?? Promise.reject(new Error('asked too often')));
  const app = { work: { ask }, clock: { now: () => '2027-03-01T09:00:00Z' } } as unknown as App; // as much of one as is asked
  const minutes = async () => (await takenHours(app)).on('a', toDayNumber(on));
  const later = (milliseconds: number) => jest.advanceTimersByTimeAsync(milliseconds);

  beforeAll(() => jest.useFakeTimers());
  afterAll(() => jest.useRealTimers());

  it('are reckoned once in half a minute, waited for a moment at most, and never in the way', async () => {
    // nothing is known yet, and the first answer never comes
    answers.push(() => new Promise(() => undefined));
    const first = minutes();
    await later(3_000);
    expect(await first).toBe(0);

    await later(30_000);
    answers.push(() => Promise.resolve(load(60)));
    expect([await minutes(), await minutes()]).toEqual([60, 60]);
    expect(ask).toHaveBeenCalledTimes(2);

    // what was reckoned last is told while the next is on its way, and where that fails
    await later(30_000);
    answers.push(() => Promise.reject(new Error('the worker ended')));
    expect(await minutes()).toBe(60);
    answers.push(() => Promise.resolve(load(90)));
    expect(await minutes()).toBe(90);
    expect(ask).toHaveBeenCalledTimes(4);
  });
});
