import { addDays, getValue } from '@zesting/core';
import type { SpreadLineBody } from '@zesting/contract';
import { addSpread, editContent, handIn, makeSpinOffs, putToUse, type App } from '@zesting/server';
import { CLIENTS } from './clients.js';
import { todayOf } from './plan-story.js';
import type { Setup } from './setup.js';
import type { RouteKey } from './story.js';

/** The film that becomes a teaser, a still and a line in the letter. */
const SOURCE = 'Steaming a plank';
const BEFORE = 'An hour in the box, a minute to bend it.';
const AFTER = 'Two hours in the box, a minute to bend it.';

interface StoryLine extends Partial<SpreadLineBody> {
  readonly key: string;
  readonly name: string;
  readonly route: RouteKey;
  readonly channel: number;
  readonly after: number;
}

/** What the museum makes of each film on its video site. */
const FILM: readonly StoryLine[] = [
  {
    key: 'teaser',
    name: 'Teaser',
    route: 'clip',
    channel: 0,
    after: -3,
    change: 'Ten seconds of steam, upright. The plank does not bend yet.',
    obstacle: 'No sound from the yard that can be used',
  },
  {
    key: 'still',
    name: 'One picture',
    route: 'still',
    channel: 0,
    after: 1,
    change: 'One still at the moment when it bends, cropped 4:5.',
    needsPicture: true,
    callToAction: 'The whole film is on our video site.',
  },
  {
    key: 'letter',
    name: 'In the letter',
    route: 'letter',
    channel: 1,
    after: 4,
    change: 'Three sentences by whoever stood at the box, with the address of the film.',
    needsCopy: true,
  },
  {
    key: 'log',
    name: 'In the log book',
    route: 'article',
    channel: 2,
    after: 8,
    change: 'The tools, the wood, the times.',
    needsCopy: true,
  },
];

/** A spread that is only thought of so far. */
const ARTICLE: readonly StoryLine[] = [
  { key: 'slides', name: 'Slides', route: 'still', channel: 0, after: 2, change: 'One thought to a slide.', shape: 'slides' },
  { key: 'letter', name: 'In the letter', route: 'letter', channel: 1, after: 5, change: 'The first paragraph, and where to go on.' },
];

/** The museum's spreads; a film made into three, of which one is behind since the film's text was corrected. */
export async function addSpinOffs(app: App, setup: Setup, now: string): Promise<void> {
  const manager = setup.viewers[CLIENTS.tide.manager];
  const { id: clientId, channelIds } = setup.clients.tide;
  const todayOn = todayOf(now, CLIENTS.tide);
  const lineOf = ({ route, channel, after, ...line }: StoryLine): SpreadLineBody => ({
    routeId: setup.routes[route],
    channelId: channelIds[channel] ?? null,
    offset: { count: after, unit: 'working_days' },
    change: '',
    needsCopy: false,
    needsPicture: false,
    shape: 'as_it_is',
    callToAction: '',
    guidelineId: null,
    doers: [],
    obstacle: '',
    ...line,
  });
  const formatOf = async (name: string) =>
    (await app.read<{ id: string }>('select id from formats where name = $1', [name]))[0]?.id ?? null;
  const film = { name: 'From a film', formatId: await formatOf('Short clip'), lines: FILM.map(lineOf) };
  const spreadId = getValue(await addSpread(app, manager, clientId, film));
  getValue(await putToUse(app, manager, spreadId, true));
  const article = { name: 'From the log book', formatId: await formatOf('Article'), lines: ARTICLE.map(lineOf) };
  getValue(await addSpread(app, manager, clientId, article));

  const [source] = await app.read<{ id: string }>('select id from pieces where title = $1', [SOURCE]);
  const sourceId = source?.id ?? '';
  await write(app, setup, sourceId, BEFORE);
  const outputs = FILM.slice(0, 3).map(({ key, name }, index) => ({
    lineKey: key,
    name,
    on: addDays(todayOn, 30 + 4 * index),
    fromSecond: key === 'teaser' ? 8 : null,
    toSecond: key === 'teaser' ? 18 : null,
  }));
  const [, stillId] = getValue(await makeSpinOffs(app, manager, sourceId, { spreadId, outputs, known: 0, giveFirst: true }));
  const [step] = await app.read<{ id: string }>('select id from steps where piece_id = $1 order by position limit 1', [stillId]);
  getValue(await handIn(app, manager, step?.id ?? ''));
  await write(app, setup, sourceId, AFTER);
}

/** Writes the film's text, as its manager. */
async function write(app: App, setup: Setup, pieceId: string, copy: string): Promise<void> {
  const [row] = await app.read<{ version: number; disclosure: string }>(
    "select content_version as version, content -> 'shared' ->> 'disclosure' as disclosure from pieces where id = $1",
    [pieceId],
  );
  const body = { shared: { copy, disclosure: row?.disclosure ?? '', media: [] }, channels: [] };
  getValue(await editContent(app, setup.viewers[CLIENTS.tide.manager], pieceId, body, row?.version ?? 0));
}
