import { parseHours } from './hours-words';

describe('hours as people type them', () => {
  it.each([
    ['1:30', 90],
    ['0:05', 5],
    ['1.5', 90],
    ['1,5', 90],
    ['2', 120],
    [' 2 h ', 120],
    ['90 min', 90],
    ['90m', 90],
    ['1 h 30', 90],
    ['1h 5 min', 65],
    ['12', 720],
    ['0', null],
    ['12:01', null],
    ['13', null],
    ['1:75', null],
    ['soon', null],
    ['-1', null],
    ['', null],
  ])('%j is %p minutes', (text, minutes) => expect(parseHours(text)).toBe(minutes));
});
