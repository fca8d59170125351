import { addDays, getValue } from '@zesting/core';
import type { ObstacleOf } from '@zesting/contract';
import { raiseObstacle, type App } from '@zesting/server';
import { textOf, todayOf } from './plan-story.js';
import type { Setup } from './setup.js';
import { AGENCY, type PersonKey } from './story.js';

const DAY_MS = 86_400_000;

interface StoryObstacle {
  readonly piece: string;
  readonly by: PersonKey;
  readonly words: string;
  readonly whose: ObstacleOf;
  readonly person?: PersonKey;
  readonly daysAgo: number;
  /** days from today until which it is expected to stand */
  readonly untilIn?: number;
}

/** What stands in the way of the first open step of some pieces of the story, by their titles. */
const OBSTACLES: readonly StoryObstacle[] = [
  { piece: 'Steaming a plank', by: 'ivo', words: 'The steam box is lit on Saturdays only', whose: 'client', daysAgo: 3, untilIn: 5 },
  {
    piece: 'Newsletter: the shearing calendar',
    by: 'sunniva',
    words: 'Two farms have not sent their dates',
    whose: 'outside',
    daysAgo: 2,
  },
  {
    piece: 'The flour arrives',
    by: 'noor',
    words: 'Nobody has said when the mill delivers',
    whose: 'person',
    person: 'dana',
    daysAgo: 1,
  },
];

/** Lets some work wait. What it does to the rest is reckoned at `now`, by whoever comes next. */
export async function addObstacles(app: App, setup: Setup, now: string): Promise<void> {
  for (const { piece, by, words, whose, person, daysAgo, untilIn } of OBSTACLES) {
    const [step] = await app.read<{ id: string; piece_id: string }>(
      `select s.id, s.piece_id from steps s join pieces p on p.id = s.piece_id where p.title = $1 and s.finished_on is null order by s.position limit 1`,
      [piece],
    );
    if (!step) throw new Error(`nothing is left to do for ${piece}`);
    app.clock.set(textOf(Date.parse(now) - daysAgo * DAY_MS));
    getValue(
      await raiseObstacle(app, setup.viewers[by], step.piece_id, {
        words,
        whose,
        stepId: step.id,
        personId: person ? setup.viewers[person].personId : null,
        untilOn: untilIn === undefined ? null : addDays(todayOf(now, AGENCY), untilIn),
      }),
    );
  }
}
