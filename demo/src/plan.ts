import { getValue, nextMonth, ruleOf, weekdayOf, type Day } from '@zesting/core';
import {
  addRule,
  addRunUp,
  catchIdea,
  makeRunUp,
  putProductionDay,
  setCycle,
  setEmbargo,
  setTheme,
  startMonth,
  type App,
} from '@zesting/server';
import { CLIENTS, type ClientKey } from './clients.js';
import type { StoryPiece } from './pieces.js';
import { todayOf, type StoryPlan } from './plan-story.js';
import type { Setup } from './setup.js';
import { ROUTES, type PersonKey, type RouteKey } from './story.js';

/** So many days of the week each channel is asked for: the first channel, and the others. */
const DAYS_A_WEEK = [3, 1];
/** The format that a channel wants, by its kind. */
const FORMATS: Partial<Record<string, RouteKey>> = {
  photo_feed: 'still',
  newsletter: 'letter',
  blog: 'article',
  short_clip_feed: 'clip',
  video_site: 'clip',
};

/** The weekdays on which a client's channel goes out: those on which most of its story does, whatever today is. */
export function weekdaysOf(client: ClientKey, channel: number, story: readonly StoryPiece[], wishOn: StoryPlan['wishOn']): number[] {
  const counts = new Map<number, number>();
  for (const piece of story) {
    const [on, place] = [piece.client === client ? wishOn(piece) : null, piece.channels.indexOf(channel)];
    if (on === null || place < 0) continue;
    const weekday = ((weekdayOf(on) - 1 + Math.min(place, 1)) % 7) + 1; // all but the first go out on the day after
    counts.set(weekday, (counts.get(weekday) ?? 0) + 1);
  }
  const most = [...counts].sort(([a, many], [b, others]) => others - many || a - b).map(([weekday]) => weekday);
  const wanted = most.slice(0, DAYS_A_WEEK[Math.min(channel, 1)]);
  return (wanted.length > 0 ? wanted : [2]).sort((a, b) => a - b);
}

/** Sets each client's rhythm. The clock must stand at the day on which it begins. */
export async function addRhythms(app: App, setup: Setup, story: readonly StoryPiece[], plan: StoryPlan): Promise<void> {
  const formats = new Map((await app.read<{ id: string; name: string }>('select id, name from formats')).map(({ id, name }) => [name, id]));
  for (const [key, told] of Object.entries(CLIENTS) as [ClientKey, (typeof CLIENTS)[ClientKey]][])
    for (const [index, { kind }] of told.channels.entries()) {
      const route = FORMATS[kind];
      const body = {
        channelId: setup.clients[key].channelIds[index] ?? '',
        rule: ruleOf({ kind: 'weeks', every: 1, weekdays: weekdaysOf(key, index, story, plan.wishOn) }),
        at: told.usualTime,
        fromOn: todayOf(app.clock.now(), told),
        untilOn: null,
        skipsHolidays: false,
        pillarId: null,
        formatId: route === undefined ? null : (formats.get(ROUTES[route].format) ?? null),
        purpose: kind === 'newsletter' ? ('come' as const) : null,
      };
      getValue(await addRule(app, setup.viewers[told.manager], setup.clients[key].id, body));
    }
}

interface StoryIdea {
  /** null: for no client yet */
  readonly client: ClientKey | null;
  readonly by: PersonKey;
  readonly daysAgo: number;
  readonly pillar: number | null;
  readonly route: RouteKey | null;
  /** merit, ease and chance; null: not weighed */
  readonly marks: readonly [number, number, number] | null;
  /** days from today until it is stale; null: it lasts */
  readonly freshDays: number | null;
  readonly title: string;
  readonly note: string;
}

/** Reads a line: client, by whom, days since it was caught, pillar, route, marks, days until it is stale | title | note. */
function parse(line: string): StoryIdea {
  const [facts = '', title = '', note = ''] = line.split('|').map((part) => part.trim());
  const [client, by, daysAgo, pillar, route, marks = '-', fresh = '-'] = facts.split(/\s+/) as [
    string,
    PersonKey,
    string,
    string,
    string,
    string,
    string,
  ]; // ours
  const none = (word: string) => word === '-';
  return {
    client: none(client) ? null : (client as ClientKey),
    by,
    daysAgo: Number(daysAgo),
    pillar: none(pillar) ? null : Number(pillar),
    route: none(route) ? null : (route as RouteKey),
    marks: none(marks) ? null : ([...marks].map(Number) as [number, number, number]), // three figures
    freshDays: none(fresh) ? null : Number(fresh),
    title,
    note,
  };
}

/** What is on the idea shelf, the oldest first. */
export const IDEAS: readonly StoryIdea[] = `
moss dana 40 1 article 434 -  | Why we water in the evening | Hana says it in every workshop.
moss dana 38 0 still   354 -  | The first frost list | What must come in, and what only looks as if.
moss dana 31 2 still   345 -  | Who prunes the wisteria | Twice a year, on the tall ladder.
moss dana 24 1 letter  443 -  | Newsletter: compost in a cold winter |
moss dana 18 0 still   -   9  | The fern that everybody photographs | It is in full leaf now.
moss dana 12 - article 533 -  | Ten plants for a north window | Asked at the till nearly every day.
moss dana 6  2 still   244 -  | What the greenhouse cat thinks of it |
moss dana 2  1 still   -   -  | Moss between paving stones |
kiln dana 39 1 clip    542 -  | The baker who starts at midnight | Sam would do it on camera.
kiln dana 33 0 still   454 -  | What a proving basket leaves behind |
kiln dana 27 0 clip    335 -  | Three ways to cut a bun |
kiln dana 20 2 still   244 4  | Two for one on Tuesday mornings | Only until the new price list.
kiln dana 15 0 still   433 -  | A loaf and its crumb, cut open |
kiln dana 9  1 -       -   -  | Letters from people who moved away |
kiln dana 3  0 still   544 -  | Crusts are not for throwing away | Three recipes from the shop floor.
tide ivo  37 0 still   444 -  | A knot a week: the figure of eight |
tide ivo  36 0 still   443 -  | A knot a week: the clove hitch |
tide ivo  28 1 article 532 -  | The keel that came from a church roof | Abe has the papers.
tide ivo  21 2 still   353 -  | Volunteers, and what they did before |
tide ivo  11 1 clip    -   -  | How the bell sounds in fog |
tide ivo  4  2 letter  433 -  | Members’ letter: a night on board |
loom ivo  35 1 still   444 -  | A warp of nine hundred threads |
loom ivo  26 0 article 542 -  | Weld, woad and madder: three plants, every colour |
loom ivo  17 2 still   335 -  | How to wash a blanket, and how not to |
loom ivo  8  0 still   -   -3 | The blue of last week’s sky | Only while people remember it.
loom ivo  5  1 -       444 -  | What a loom sounds like |
-    ivo  13 - -       333 -  | Ask clients what their visitors ask them | For any client with a counter.
-    dana 7  - clip    -   -  | A day in one minute |
`
  .trim()
  .split('\n')
  .map(parse);

/** Catches an idea of the story. The clock must stand at its day. @param now the present, from which its freshness counts */
export async function addIdea(app: App, setup: Setup, idea: StoryIdea, dayAfter: (days: number) => Day): Promise<void> {
  const client = idea.client && setup.clients[idea.client];
  const formats = new Map((await app.read<{ id: string; name: string }>('select id, name from formats')).map(({ id, name }) => [name, id]));
  const [merit, ease, chance] = idea.marks ?? [null, null, null];
  const body = {
    title: idea.title,
    note: idea.note,
    clientId: client?.id ?? null,
    pillarId: idea.pillar === null ? null : (client?.pillarIds[idea.pillar] ?? null),
    formatId: idea.route === null ? null : (formats.get(ROUTES[idea.route].format) ?? null),
    merit,
    ease,
    chance,
    freshUntilOn: idea.freshDays === null ? null : dayAfter(idea.freshDays),
  };
  getValue(await catchIdea(app, setup.viewers[idea.by], body));
}

/** The nursery's launch is prepared: a teaser that is begun, and what goes out on the day and after it. */
export async function addRunUps(app: App, setup: Setup): Promise<void> {
  const [marker] = await app.read<{ id: string }>("select id from markers where client_id = $1 and kind = 'launch'", [
    setup.clients.moss.id,
  ]);
  if (!marker) throw new Error('the nursery launches nothing');
  const viewer = setup.viewers[CLIENTS.moss.manager];
  const [feed = '', letter = ''] = setup.clients.moss.channelIds;
  const lines = [
    { offsetDays: -4, title: 'Spring catalogue: the first page', channelId: feed, routeId: setup.routes.still },
    { offsetDays: 0, title: 'Newsletter: the spring catalogue is here', channelId: letter, routeId: setup.routes.letter },
    { offsetDays: 6, title: 'Spring catalogue: what you asked for most', channelId: feed, routeId: setup.routes.still },
  ];
  const ids = [];
  for (const line of lines) ids.push(getValue(await addRunUp(app, viewer, marker.id, line)));
  getValue(await makeRunUp(app, viewer, ids[0] ?? ''));
  // a teaser before the day that was agreed gives it away, and one after the launch is none
  const [teaser] = await app.read<{ id: string; from: string; until: string }>(
    `select p.id, min(l.on_day) as from, m.start_on as until from pieces p join placements l on l.piece_id = p.id cross join markers m
     where p.title = $1 and m.id = $2 group by p.id, m.start_on`,
    [lines[0]?.title, marker.id],
  );
  if (!teaser) throw new Error('the launch has no teaser');
  const window = { notBeforeOn: teaser.from, notAfterOn: teaser.until, why: 'The catalogue is under wraps until then' };
  getValue(await setEmbargo(app, viewer, teaser.id, window, 0));
}

/** The bakehouse films three clips together, on a day on which everybody will be at a fair. */
export async function addProductionDay(app: App, setup: Setup): Promise<void> {
  const { id } = setup.clients.kiln;
  const [marker] = await app.read<{ id: string }>("select id from markers where client_id = $1 and kind = 'production_day'", [id]);
  if (!marker) throw new Error('the bakehouse films nothing');
  const titles = ['Inside the deck oven', 'The flour arrives'];
  const pieces = await app.read<{ id: string }>('select id from pieces where client_id = $1 and title = any($2) order by title', [
    id,
    titles,
  ]);
  const body = { capacity: 3, skill: 'film', place: 'The bakehouse, from four in the morning', pieceIds: pieces.map((piece) => piece.id) };
  getValue(await putProductionDay(app, setup.viewers[CLIENTS.kiln.manager], marker.id, body, 0));
}

/** Themes: a cycle for the nursery, months for the bakehouse, one week for the museum. */
export async function addThemes(app: App, setup: Setup, now: string): Promise<void> {
  const of = (key: ClientKey) => ({
    id: setup.clients[key].id,
    viewer: setup.viewers[CLIENTS[key].manager],
    today: todayOf(now, CLIENTS[key]),
  });
  const [moss, kiln, tide] = [of('moss'), of('kiln'), of('tide')];
  const names = ['Rest and repair', 'Seeds and first light', 'Planting out', 'Water and shade', 'Cuttings', 'Gathering in'];
  getValue(await setCycle(app, moss.viewer, moss.id, { names, fromMonth: `${Number(moss.today.slice(0, 4)) - 1}-01` }));
  const month = kiln.today.slice(0, 7);
  getValue(await setTheme(app, kiln.viewer, kiln.id, { period: 'month', on: `${month}-01`, name: 'Bread for company' }));
  getValue(
    await setTheme(app, kiln.viewer, kiln.id, { period: 'month', on: `${nextMonth(month, 1)}-01`, name: 'The people behind the loaf' }),
  );
  getValue(await setTheme(app, tide.viewer, tide.id, { period: 'month', on: tide.today, name: 'Knots and winter work' }));
  // the nursery's next month is still to be started
  for (const [{ id, viewer, today }, ahead] of [
    [moss, 0],
    [kiln, 0],
    [kiln, 1],
    [tide, 0],
  ] as const)
    getValue(await startMonth(app, viewer, id, nextMonth(today.slice(0, 7), ahead)));
}
