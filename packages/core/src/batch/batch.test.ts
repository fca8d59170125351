import fc from 'fast-check';
import type { RouteStep } from '../route/index.js';
import { batchOf } from './index.js';

const step = (skill: string, effortMinutes: number, kind: RouteStep['kind'] = 'make'): RouteStep => ({
  key: `${skill}${effortMinutes}`,
  title: skill,
  kind,
  skill,
  spanDays: 1,
  effortMinutes,
  after: [],
});
const ROUTES: Record<string, RouteStep[]> = {
  clip: [step('write', 60), step('film', 240), step('film', 120), step('sign_off', 30, 'sign_off')],
  still: [step('write', 30), step('design', 90), step('check', 0, 'check')],
};
const stepsOf = (formatId: string) => ROUTES[formatId] ?? [];

describe('what a period asks to be made', () => {
  it('is counted by format, and its work by skill; what the client does and what takes no hours is not', () => {
    expect(batchOf(['still', 'clip', null, 'clip', 'audio'], stepsOf)).toEqual({
      formats: [
        { formatId: 'clip', count: 2 },
        { formatId: 'still', count: 1 },
        { formatId: 'audio', count: 1 },
      ],
      ofAny: 1,
      skills: [
        { skill: 'film', minutes: 720 },
        { skill: 'write', minutes: 150 },
        { skill: 'design', minutes: 90 },
      ],
      minutes: 960,
    });
  });

  it('adds up: formats and those of any make all pieces, skills make all minutes, two periods make one', () => {
    const wanted = fc.array(fc.constantFrom(null, 'clip', 'still', 'audio'), { maxLength: 30 });
    fc.assert(
      fc.property(wanted, wanted, (one, other) => {
        const both = batchOf([...one, ...other], stepsOf);
        expect(both.formats.reduce((sum, { count }) => sum + count, both.ofAny)).toBe(one.length + other.length);
        expect(both.skills.reduce((sum, { minutes }) => sum + minutes, 0)).toBe(both.minutes);
        expect(both.minutes).toBe(batchOf(one, stepsOf).minutes + batchOf(other, stepsOf).minutes);
      }),
    );
  });
});
