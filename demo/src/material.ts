import { addDays, getValue, workingDayOnOrAfter } from '@zesting/core';
import { addBrought, addMaterial, askForMaterial, changePiecePath, clientKey, getDoer, loadCalendars, type App } from '@zesting/server';
import { textOf } from './plan-story.js';
import type { Setup } from './setup.js';
import type { PersonKey } from './story.js';

const DAY_MS = 86_400_000;

interface StoryDelivery {
  readonly piece: string;
  readonly step: string;
  /** what was asked for; null: nobody has asked yet */
  readonly words: string | null;
  /** what has come so far: addresses, or words */
  readonly brought: readonly (readonly [label: string, what: string])[];
}

/** What clients are to bring before some pieces of the story can be made. */
const DELIVERIES: readonly StoryDelivery[] = [
  {
    piece: 'School boats in spring',
    step: 'Last year’s pictures',
    words: 'Six or more of last year’s school boats, in full size, and who may be seen on them.',
    brought: [
      ['The album of the day', 'https://album.tidelight.test/school-boats'],
      ['', 'The red boat is from the harbour school, the others from Northgate. All parents have signed.'],
    ],
  },
  { piece: 'Open loom Saturdays', step: 'Dates and places', words: 'On which Saturdays, and how many looms are free.', brought: [] },
  { piece: 'Autumn leaves, kept', step: 'The leaf press', words: null, brought: [] },
];

interface StoryMaterial {
  readonly piece: string;
  readonly by: PersonKey;
  readonly sort: 'working' | 'reference' | 'transcript';
  readonly label: string;
  readonly url?: string;
  readonly text?: string;
}

/** What the team works from. */
const MATERIAL: readonly StoryMaterial[] = [
  {
    piece: 'Meet the cutting bench',
    by: 'noor',
    sort: 'working',
    label: 'Layers of the bench picture',
    url: 'https://files.quillhaven.test/bench-layers',
  },
  {
    piece: 'Meet the cutting bench',
    by: 'dana',
    sort: 'transcript',
    label: 'Ollie at the bench, by telephone',
    text: 'Every plant here began as a cutting on this bench. My knife is older than the greenhouse; it was my aunt’s.\nYou cut below the leaf, never above it, and you do not talk to them while you do it. That is what the kettle is for.',
  },
];

/** Lets clients be asked for what some pieces wait for, and bring a part of it. The clock stands on the day before `now` at the end. */
export async function addDeliveries(app: App, setup: Setup, now: string): Promise<void> {
  const at = (daysAgo: number) => app.clock.set(textOf(Date.parse(now) - daysAgo * DAY_MS));
  for (const { piece, step, words, brought } of DELIVERIES) {
    at(2);
    const [first] = await app.read<{ id: string; piece_id: string; client_id: string; contact_id: string }>(
      `select s.id, s.piece_id, p.client_id, (select x.id from contacts x where x.client_id = p.client_id order by x.can_ask desc, x.position, x.id limit 1) as contact_id
       from steps s join pieces p on p.id = s.piece_id where p.title = $1 and s.started_on is null order by s.position limit 1`,
      [piece],
    );
    if (!first) throw new Error(`nothing is left to begin for ${piece}`);
    const added = { kind: 'add', does: 'deliver', title: step, skill: 'deliver', place: 'before', spanDays: 3, effortMinutes: 0 } as const;
    getValue(await changePiecePath(app, setup.viewers.dana, first.piece_id, [{ ...added, stepId: first.id }]));
    if (words === null) continue;
    const [delivery] = await app.read<{ id: string }>("select id from steps where piece_id = $1 and kind = 'deliver'", [first.piece_id]);
    const client = getDoer(await loadCalendars(app.manager, app.clock.now()), clientKey(first.client_id));
    const dueOn = getValue(workingDayOnOrAfter(client.calendar, addDays(client.todayOn, 5)));
    const asked = { contactId: first.contact_id, words, dueOn, alsoIds: [] };
    getValue(await askForMaterial(app, setup.viewers.dana, delivery?.id ?? '', asked));
    at(1);
    for (const [label, what] of brought)
      getValue(
        await addBrought(app, first.contact_id, delivery?.id ?? '', {
          label,
          ...(what.startsWith('https:') ? { url: what } : { text: what }),
        }),
      );
  }
}

/** Puts material of the team beside some pieces of the story. */
export async function addTeamMaterial(app: App, setup: Setup): Promise<void> {
  for (const { piece, by, ...material } of MATERIAL) {
    const [found] = await app.read<{ id: string }>('select id from pieces where title = $1', [piece]);
    if (!found) throw new Error(`material is for a piece that is not there: ${piece}`);
    getValue(await addMaterial(app, setup.viewers[by], found.id, material));
  }
}
