import { getDay } from '../time/index.js';
import { judge, type Judged } from './index.js';

const base: Judged = {
  todayOn: getDay('2027-03-01'),
  wishOn: getDay('2027-04-16'),
  earliestOn: getDay('2027-03-12'),
  predictedOn: getDay('2027-03-16'),
  missing: [],
  isLaunch: false,
  noticeDays: 30,
  launchNoticeDays: 90,
  twins: 0,
  clashes: 0,
};
const word = (part: Partial<Judged>) => judge({ ...base, ...part }).word;

describe('the verdict on a request', () => {
  it('is ready where nothing stands against it', () => {
    expect(judge(base)).toEqual({ word: 'ready', slackDays: 31, noticeOn: '2027-03-31', keepsNotice: true });
    expect(judge({ ...base, wishOn: null, earliestOn: null, predictedOn: null })).toMatchObject({
      word: 'ready',
      slackDays: null,
      keepsNotice: true,
    });
  });

  it('says first what the path does not allow, then what is predicted too late, then what is missing, then what to look at', () => {
    const all = { missing: ['audience'] as const, twins: 1, clashes: 1 };
    expect(word({ ...all, wishOn: getDay('2027-03-11') })).toBe('not_by_then');
    expect([word({ ...all, wishOn: getDay('2027-03-15') }), word(all), word({ twins: 1 }), word({ clashes: 2 })]).toEqual([
      'later',
      'ask',
      'look',
      'look',
    ]);
    expect(word({ wishOn: getDay('2027-03-16') })).toBe('ready'); // the predicted day itself can be met
    expect(word({ wishOn: getDay('2027-03-12') })).toBe('later'); // the path alone would allow it
  });

  it('wants a launch asked for longer ahead', () => {
    expect(judge({ ...base, isLaunch: true })).toMatchObject({ word: 'ready', noticeOn: '2027-05-30', keepsNotice: false });
    expect(judge({ ...base, wishOn: getDay('2027-03-31') }).keepsNotice).toBe(true);
    expect(judge({ ...base, wishOn: getDay('2027-03-30') }).keepsNotice).toBe(false);
  });
});
