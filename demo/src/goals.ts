import { addDays, getValue } from '@zesting/core';
import { addGoal, addStrategyNote, putReading, type App } from '@zesting/server';
import { CLIENTS, type ClientKey } from './clients.js';
import { todayOf } from './plan-story.js';
import type { Setup } from './setup.js';

interface StoryGoal {
  readonly client: ClientKey;
  readonly name: string;
  readonly channel: number | null;
  readonly measure: 'reading' | 'pieces';
  readonly unit: string;
  readonly from: number;
  readonly to: number;
  /** days from today: its start, and its day */
  readonly days: readonly [number, number];
  readonly pillars: readonly number[];
  readonly steps: readonly (readonly [string, boolean])[];
  /** days from today, and what was read then */
  readonly readings: readonly (readonly [number, number])[];
}

const GOALS: readonly StoryGoal[] = [
  {
    client: 'moss',
    name: 'Readers of the newsletter',
    channel: 1,
    measure: 'reading',
    unit: 'readers',
    from: 2100,
    to: 3000,
    days: [-120, 150],
    pillars: [1],
    steps: [
      ['A card at the till', true],
      ['A line under every article', true],
      ['Ask at the open day', false],
    ],
    readings: [
      [-92, 2180],
      [-64, 2240],
      [-36, 2325],
      [-8, 2390],
    ],
  },
  {
    client: 'moss',
    name: 'What is in season, every week',
    channel: 0,
    measure: 'pieces',
    unit: '',
    from: 0,
    to: 12,
    days: [-42, 60],
    pillars: [0],
    steps: [],
    readings: [],
  },
  {
    client: 'kiln',
    name: 'Waste at closing time',
    channel: null,
    measure: 'reading',
    unit: 'loaves a day',
    from: 34,
    to: 12,
    days: [-90, 90],
    pillars: [0, 2],
    steps: [['Four o’clock week, again', false]],
    readings: [
      [-60, 28],
      [-30, 23],
      [-2, 20],
    ],
  },
];

const NOTES = [
  ['moss', 'mission', 'That people who have never kept a plant keep one for ten years.', null],
  ['moss', 'works', 'Hands in the picture. Plants alone get half as many questions.', null],
  ['moss', 'works_not', 'Prices in the picture: they are wrong within a week.', null],
  ['moss', 'admired', 'A seed house that prints who sowed what, and when.', 'https://seeds.example/who-sowed'],
  ['kiln', 'mission', 'Bread that is worth the walk.', null],
] as const;

/** Where clients of the story are to get to, what was read so far, and what is known of their strategy. */
export async function addGoals(app: App, setup: Setup, now: string): Promise<void> {
  for (const goal of GOALS) {
    const client = setup.clients[goal.client];
    const viewer = setup.viewers[CLIENTS[goal.client].manager];
    const inDays = (days: number) => addDays(todayOf(now, CLIENTS[goal.client]), days);
    const goalId = getValue(
      await addGoal(app, viewer, client.id, {
        name: goal.name,
        channelId: goal.channel === null ? null : (client.channelIds[goal.channel] ?? null),
        measure: goal.measure,
        unit: goal.unit,
        startValue: goal.from,
        target: goal.to,
        startOn: inDays(goal.days[0]),
        byOn: inDays(goal.days[1]),
        pillarIds: goal.pillars.flatMap((index) => client.pillarIds[index] ?? []),
        steps: goal.steps.map(([text, isDone]) => ({ text, isDone })),
      }),
    );
    for (const [days, value] of goal.readings) getValue(await putReading(app, viewer, goalId, { on: inDays(days), value }));
  }
  for (const [client, kind, text, link] of NOTES)
    getValue(await addStrategyNote(app, setup.viewers[CLIENTS[client].manager], setup.clients[client].id, { kind, text, link }));
}
