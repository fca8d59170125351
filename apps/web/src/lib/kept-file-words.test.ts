import { dayWords } from './format';
import { goesOut, renewWords, titleOfName } from './kept-file-words';

describe('words of kept files', () => {
  it('say by when a file is renewed, and since when it is old', () => {
    expect(renewWords(null, '2027-03-01')).toBeNull();
    expect(renewWords('2027-06-01', '2027-03-01')).toEqual({ words: `Renew by ${dayWords('2027-06-01')}`, tone: 'calm' });
    expect(renewWords('2027-03-20', '2027-03-01')).toEqual({ words: `Renew by ${dayWords('2027-03-20')}`, tone: 'rind' });
    expect(renewWords('2027-02-20', '2027-03-01')).toEqual({ words: `To be renewed since ${dayWords('2027-02-20')}`, tone: 'rhubarb' });
  });

  it('make a title of a name', () => {
    expect(titleOfName('rye-loaf_on.slate.JPG')).toBe('rye loaf on slate');
    expect(titleOfName('.png')).toBe('');
    expect(titleOfName('Frame')).toBe('Frame');
  });

  it('know what goes out by itself', () => {
    expect(['image/png', 'video/mp4', 'audio/mpeg', 'application/pdf'].map(goesOut)).toEqual([true, true, true, false]);
  });
});
