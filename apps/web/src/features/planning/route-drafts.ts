import type { EditRouteBody, RoutePageShape, RoutesPageShape } from '@zesting/contract';
import type { RouteStep } from '@zesting/core';

/** A key that no step has: stored with pieces, so it never changes with the title. */
export function freeKey(steps: readonly RouteStep[]): string {
  for (let number = steps.length + 1; ; number++) if (!steps.some((step) => step.key === `step-${number}`)) return `step-${number}`;
}

/** A route as it is edited; without one, what a new one begins with. */
export const draftOf = (route: RoutePageShape | null, page: RoutesPageShape): EditRouteBody => ({
  name: route?.name ?? '',
  formatName: route?.formatName ?? page.formats[0] ?? '',
  roundsAllowed: route?.roundsAllowed ?? null,
  steps: (route?.steps ?? FIRST_STEPS).map((step) => ({ ...step, after: [...step.after], checklist: [...(step.checklist ?? [])] })),
});

const FIRST_STEPS: readonly RouteStep[] = [
  {
    key: 'make',
    title: 'Make',
    kind: 'make',
    skill: '',
    spanDays: 2,
    effortMinutes: 240,
    after: [],
    reworkSpanDays: 1,
    reworkEffortMinutes: 60,
  },
  { key: 'check', title: 'Check', kind: 'check', skill: 'check', spanDays: 1, effortMinutes: 30, after: ['make'], reworkSpanDays: 1 },
  {
    key: 'sign-off',
    title: 'Client sign-off',
    kind: 'sign_off',
    skill: 'sign_off',
    spanDays: 2,
    effortMinutes: 0,
    after: ['check'],
    reworkSpanDays: 1,
  },
];
