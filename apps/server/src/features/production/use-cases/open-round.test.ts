import type { RouteStep } from '@zesting/core';
import { reworkSteps } from './open-round.js';

const step = (key: string, kind: RouteStep['kind'], more: Partial<RouteStep> = {}): RouteStep => ({
  key,
  title: key,
  kind,
  skill: key,
  spanDays: 2,
  effortMinutes: 0,
  after: [],
  ...more,
});
const keys = (route: RouteStep[]) => reworkSteps(route).map((found) => found.key);

describe('the steps of another round', () => {
  it('are those that the route marks', () => {
    expect(
      keys([
        step('write', 'make', { reworkSpanDays: 1 }),
        step('design', 'make'),
        step('check', 'check'),
        step('sign-off', 'sign_off', { reworkSpanDays: 1 }),
      ]),
    ).toEqual(['write', 'sign-off']);
  });

  it('are else the last making step, the check and the sign-off', () => {
    expect(keys([step('write', 'make'), step('design', 'make'), step('check', 'check'), step('sign-off', 'sign_off')])).toEqual([
      'design',
      'check',
      'sign-off',
    ]);
  });
});
