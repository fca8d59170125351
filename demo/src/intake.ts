import { getValue, type FormContent, type FormItem } from '@zesting/core';
import {
  askBack,
  keepAsIdea,
  makeForm,
  makeLink,
  mergeRequest,
  publishForm,
  saveForm,
  submitRequest,
  takeDown,
  type App,
  type Viewer,
} from '@zesting/server';
import type { ClientKey } from './clients.js';
import type { Setup } from './setup.js';
import type { PersonKey } from './story.js';

/** Questions in the language of the weavers' mother house. */
const GERMAN_ITEMS: readonly FormItem[] = [
  { key: 'titel', kind: 'short', label: 'Worum geht es?', help: 'Ein paar Worte genügen.', needed: true, serves: 'title' },
  { key: 'ziel', kind: 'long', label: 'Was sollen die Leute danach tun oder empfinden?', needed: true, serves: 'aim' },
  { key: 'wo', kind: 'channel', label: 'Wo soll es erscheinen?', several: true },
  { key: 'wann', kind: 'day', label: 'Wann soll es erscheinen?', serves: 'wish_date' },
  { key: 'budget', kind: 'money', label: 'Was darf es kosten?', unit: 'GBP' },
  { key: 'bilder', kind: 'files', label: 'Bilder, die helfen', fileKinds: ['picture'], serves: 'material' },
];

interface FormStory {
  readonly by: PersonKey;
  readonly title: string;
  readonly clients: readonly ClientKey[];
  readonly stock?: string;
  readonly change?: (content: FormContent, setup: Setup) => Partial<FormContent>;
  /** where its links were handed out, for the first of its clients */
  readonly links: readonly string[];
}

/** The forms beside each client's first one: of every shape. */
const FORMS: readonly FormStory[] = [
  {
    by: 'dana',
    title: 'A clip from the bakehouse',
    clients: ['kiln'],
    stock: 'A clip',
    change: (_, { routes }) => ({
      thanks: 'Thank you. Dana looks at it before the ovens cool.',
      noticeDays: 10,
      answerDays: 2,
      rules: [
        { when: { field: 'material', is: 'is', value: 'yes, all of it' }, takes: { routeId: routes.clip, ownerId: 'lead_person' } },
        {
          when: {
            all: [
              { field: 'place', is: 'contains', value: 'night' },
              { field: 'people', is: 'is', value: 'yes' },
            ],
          },
          takes: { routeId: routes.clip },
        },
      ],
    }),
    links: ['Staff room', 'Newsletter of the month'],
  },
  { by: 'marta', title: 'Tell us about an event', clients: ['tide', 'loom'], stock: 'An event to support', links: ['Harbour office'] },
  {
    by: 'marta',
    title: 'Your dates of the month',
    clients: ['moss', 'kiln', 'tide', 'loom'],
    stock: 'A month of dates',
    links: ['Round mail'],
  },
  {
    by: 'marta',
    title: 'Eine Anfrage an Quillhaven',
    clients: ['loom'],
    change: () => ({ language: 'de', intro: 'Schreiben Sie, wie Sie sprechen.', items: GERMAN_ITEMS, answerDays: 3 }),
    links: ['Mutterhaus'],
  },
];

/** Forms of all shapes, and requests that came by other ways than the first form: asked back, by telephone, merged. */
export async function addIntake(app: App, setup: Setup): Promise<void> {
  const links = new Map<string, string>();
  for (const story of FORMS) links.set(story.title, await addForm(app, setup, story));
  const { dana, marta } = setup.viewers;
  const night = links.get('A clip from the bakehouse');
  if (!night) throw new Error('the form of the night is not there');
  const { requestId } = getValue(
    await submitRequest(
      app,
      night,
      {
        name: 'Sam Adewole',
        email: 'sam@kilnlane.test',
        answers: {
          title: 'The night shift in sixty seconds',
          aim: 'People should know that somebody is up for their bread at two in the morning.',
          material: 'no',
          place: 'In the bakehouse, any night but Sunday',
          people: 'yes',
          agreed: 'Jory and both apprentices; Jory has said yes.',
        },
        version: 1,
      },
      'demo-night-shift',
    ),
  );
  getValue(
    await askBack(
      app,
      dana,
      requestId,
      'Have the apprentices said yes as well? And who should see it first of all: neighbours, or people who may want to work there?',
    ),
  );

  await addAgreed(app, setup);
  await addIdea(app, setup, dana);
  const [first] = await app.read<{ form_id: string }>('select form_id from form_links where id = $1', [setup.clients.moss.linkId]);
  getValue(
    await takeDown(
      app,
      dana,
      setup.clients.moss.id,
      {
        formId: first?.form_id ?? '',
        name: 'Old Mr Teasdale, over the counter',
        email: null,
        answers: {
          about: 'Ferns for the north window',
          aim: 'Those who have no sun should not think that nothing grows for them.',
          audience: 'People who do not know us yet',
        },
      },
      'demo-telephone',
    ),
  );
  await addTwin(app, setup, marta);
}

/** What a month of each client includes, by hours and by pieces of a format, and whose word counts more. */
const AGREED: readonly (readonly [ClientKey, hours: number | null, pieces: Readonly<Record<string, number>>])[] = [
  ['moss', null, { Still: 8, Newsletter: 2 }],
  ['kiln', 80, { 'Short clip': 4 }],
  ['tide', 60, {}],
];

async function addAgreed(app: App, setup: Setup): Promise<void> {
  for (const [client, hours, pieces] of AGREED)
    await app.read(
      `update clients set allowance = jsonb_build_object('hours', $2::int, 'formats', coalesce((
         select jsonb_agg(jsonb_build_object('formatId', f.id, 'pieces', ($3::jsonb ->> f.name)::int) order by f.position)
         from formats f where $3::jsonb ? f.name), '[]')) where id = $1`,
      [setup.clients[client].id, hours, JSON.stringify(pieces)],
    );
  await app.read("update contacts set weight = 3 where email = 'greta@kilnlane.test'");
  await app.read("update contacts set weight = 2 where email in ('hana@mossgrove.test', 'winnie@tidelight.test')");
}

/** A good thought for which it is too early. */
async function addIdea(app: App, setup: Setup, dana: Viewer): Promise<void> {
  const { requestId } = getValue(
    await submitRequest(
      app,
      setup.clients.kiln.linkId,
      {
        name: 'Greta Vosper',
        email: 'greta@kilnlane.test',
        answers: {
          about: 'A loaf for the hundredth birthday of the lane',
          aim: 'People should tell us what they remember of it.',
          audience: 'People who know us',
        },
        version: 1,
      },
      'demo-idea',
    ),
  );
  getValue(await keepAsIdea(app, dana, requestId, 'The lane is a hundred in two years: we come back to it.'));
}

/** Somebody else at the museum asks for what is asked for already. */
async function addTwin(app: App, setup: Setup, marta: Viewer): Promise<void> {
  const [ice] = await app.read<{ id: string; name: string; email: string }>(
    "select id, requester_name as name, requester_email as email from requests where title = 'Ice on the harbour, 1934'",
  );
  if (!ice) throw new Error('nobody asked for the ice');
  const { requestId } = getValue(
    await submitRequest(
      app,
      setup.clients.tide.linkId,
      {
        name: ice.name,
        email: ice.email,
        answers: { about: 'The harbour under ice in 1934', aim: 'People should bring photographs.', audience: 'People who know us' },
        version: 1,
      },
      'demo-twin',
    ),
  );
  getValue(await mergeRequest(app, marta, requestId, ice.id));
}

/** Makes a form, publishes it and hands its links out. @returns the first link's id */
async function addForm(app: App, setup: Setup, { by, title, clients, stock, change, links }: FormStory): Promise<string> {
  const viewer = setup.viewers[by];
  const clientIds = clients.map((key) => setup.clients[key].id);
  const { formId } = getValue(await makeForm(app, viewer, { title, clientIds, ...(stock ? { stock } : {}) }));
  const [row] = await app.read<{ draft: FormContent }>('select draft from intake_forms where id = $1', [formId]);
  if (!row) throw new Error(`the form was not made: ${title}`);
  const begun = { ...row.draft, routeId: row.draft.routeId ?? setup.routes.still };
  getValue(await saveForm(app, viewer, formId, { ...begun, ...change?.(begun, setup) }, 1));
  getValue(await publishForm(app, viewer, formId, 2));
  const made: string[] = [];
  for (const label of links) made.push(getValue(await makeLink(app, viewer, formId, { clientId: clientIds[0] ?? '', label, origins: [] })));
  return made[0] ?? '';
}
