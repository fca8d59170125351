import type { AlongField, AlongKept, RouteProblem, RouteStep } from '@zesting/core';

export const PROBLEM_WORDS: Record<RouteProblem['code'], string> = {
  'route.empty': 'A route needs a step.',
  'route.title_missing': 'Give this step a name.',
  'route.title_twice': 'Another step has this name.',
  'route.span_wrong': 'Spans are 1 to 60 whole days.',
  'route.effort_wrong': 'Efforts are 0 to 200 hours.',
  'route.predecessor_unknown': 'It waits for a step that is gone.',
  'route.circular': 'Steps wait for each other in a ring.',
  'route.nothing_made': 'One step at least must make something.',
  'route.sign_off_not_last': 'Nothing but sign-off may wait for the client’s sign-off.',
};
export const STEP_DOES: Record<RouteStep['kind'], string> = {
  make: 'makes',
  check: 'checks',
  deliver: 'client brings something',
  sign_off: 'client signs off',
};

/** What of a step a changed route changes, in words. */
export const FIELD_WORDS: Record<AlongField, string> = {
  title: 'its name',
  skill: 'its skill',
  days: 'its days',
  effort: 'its hours',
  order: 'what it waits for',
  checklist: 'its checklist',
  same_day: 'whether it may start on the same day',
  optional: 'whether it may be left out',
};

/** Why a piece keeps something although its route is otherwise by now. */
export const KEPT_WORDS: Record<AlongKept['why'], string> = {
  begun: 'is begun, and stays',
  by_hand: 'keeps what was changed by hand',
  follower_begun: 'does not come in: what would follow it is begun',
};
