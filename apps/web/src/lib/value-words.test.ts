import { fieldWords, valueWords } from './value-words';

describe('values in words', () => {
  it.each<[unknown, string]>([
    [null, 'nothing'],
    ['', 'nothing'],
    [[], 'none'],
    [true, 'yes'],
    [12, '12'],
    ['2019-03-16', 'Sat 16 Mar 2019'],
    [['moss', 'fern'], 'moss, fern'],
    [[{ id: 'x', name: 'Ana', email: 'ana@x.test', canAsk: true, canSignOff: false }], 'Ana (email ana@x.test, can ask)'],
    [{ on: '2019-03-16', at: '09:00' }, 'on Sat 16 Mar 2019, at 09:00'],
    [{ kind: 'named', contactIds: ['1'] }, 'kind named'],
    [[480, 0], '480, 0'],
  ])('%j', (value, words) => {
    expect(valueWords(value)).toBe(words);
  });

  it('names fields as people would', () => {
    expect(['usualTime', 'wishOn', 'weeklyMinutes', 'name'].map(fieldWords)).toEqual(['usual time', 'wish', 'minutes a weekday', 'name']);
  });
});
