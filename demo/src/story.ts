import type { FormField, RouteStep } from '@zesting/core';
import type { Motif, Palette } from './pictures.js';

/** The made-up scenario: an agency, a plant nursery in Auckland and a bakehouse in London. Nothing here is real. */

export const PASSWORD = 'zest-and-pith';
const FULL_WEEK = [480, 480, 480, 480, 480, 0, 0];

export const AGENCY = { name: 'Quillhaven', zone: 'Europe/London', region: 'GB-ENG', weeklyMinutes: FULL_WEEK };

export const PEOPLE = {
  marta: {
    name: 'Marta Ilves',
    email: 'marta@quillhaven.test',
    role: 'lead',
    zone: 'Europe/London',
    region: 'GB-ENG',
    week: FULL_WEEK,
    skills: { check: 3 },
  },
  dana: {
    name: 'Dana Okafor',
    email: 'dana@quillhaven.test',
    role: 'manager',
    zone: 'Europe/London',
    region: 'GB-ENG',
    week: FULL_WEEK,
    skills: { check: 3, write: 1 },
  },
  piet: {
    name: 'Piet Lindqvist',
    email: 'piet@quillhaven.test',
    role: 'staff',
    zone: 'Europe/London',
    region: 'GB-ENG',
    week: [480, 480, 480, 480, 240, 0, 0],
    skills: { design: 3, check: 2 },
  },
  noor: {
    name: 'Noor Castellane',
    email: 'noor@pencraft.test',
    role: 'freelance',
    zone: 'America/Los_Angeles',
    region: 'US-CA',
    week: [360, 360, 0, 360, 360, 0, 0],
    skills: { write: 3 },
  },
  teo: {
    name: 'Teo Brandvold',
    email: 'teo@lightroomers.test',
    role: 'freelance',
    zone: 'Europe/London',
    region: 'GB-ENG',
    week: [0, 480, 480, 480, 0, 0, 0],
    skills: { design: 2, film: 3 },
  },
} as const;
export type PersonKey = keyof typeof PEOPLE;

export const FORMATS = ['Still', 'Short clip', 'Newsletter', 'Article'] as const;

const signOff = (after: string): RouteStep => ({
  key: 'sign_off',
  title: 'Client sign-off',
  kind: 'sign_off',
  skill: 'sign_off',
  spanDays: 2,
  effortMinutes: 0,
  after: [after],
  reworkSpanDays: 1,
});
const check = (...after: string[]): RouteStep => ({
  key: 'check',
  title: 'Check',
  kind: 'check',
  skill: 'check',
  spanDays: 1,
  effortMinutes: 30,
  after,
  reworkSpanDays: 1,
  reworkEffortMinutes: 15,
});

export const ROUTES: Record<
  'still' | 'clip' | 'letter' | 'article',
  { name: string; format: (typeof FORMATS)[number]; steps: RouteStep[] }
> = {
  still: {
    name: 'Still with copy',
    format: 'Still',
    steps: [
      { key: 'write', title: 'Write', kind: 'make', skill: 'write', spanDays: 1, effortMinutes: 90, after: [] },
      {
        key: 'design',
        title: 'Design',
        kind: 'make',
        skill: 'design',
        spanDays: 2,
        effortMinutes: 240,
        after: ['write'],
        reworkSpanDays: 1,
        reworkEffortMinutes: 90,
      },
      check('design'),
      signOff('check'),
    ],
  },
  clip: {
    name: 'Short clip',
    format: 'Short clip',
    steps: [
      { key: 'script', title: 'Script', kind: 'make', skill: 'write', spanDays: 1, effortMinutes: 120, after: [] },
      { key: 'film', title: 'Film', kind: 'make', skill: 'film', spanDays: 2, effortMinutes: 480, after: ['script'] },
      {
        key: 'edit',
        title: 'Edit',
        kind: 'make',
        skill: 'film',
        spanDays: 2,
        effortMinutes: 360,
        after: ['film'],
        reworkSpanDays: 1,
        reworkEffortMinutes: 120,
      },
      check('edit'),
      signOff('check'),
    ],
  },
  letter: {
    name: 'Newsletter',
    format: 'Newsletter',
    steps: [
      {
        key: 'write',
        title: 'Write',
        kind: 'make',
        skill: 'write',
        spanDays: 2,
        effortMinutes: 240,
        after: [],
        reworkSpanDays: 1,
        reworkEffortMinutes: 60,
      },
      { key: 'design', title: 'Header picture', kind: 'make', skill: 'design', spanDays: 1, effortMinutes: 120, after: [] },
      check('write', 'design'),
      signOff('check'),
    ],
  },
  article: {
    name: 'Article',
    format: 'Article',
    steps: [
      {
        key: 'write',
        title: 'Write',
        kind: 'make',
        skill: 'write',
        spanDays: 3,
        effortMinutes: 480,
        after: [],
        reworkSpanDays: 1,
        reworkEffortMinutes: 120,
      },
      check('write'),
      signOff('check'),
    ],
  },
};
export type RouteKey = keyof typeof ROUTES;

const FIELDS: FormField[] = [
  {
    key: 'about',
    kind: 'short',
    label: 'What is it about?',
    help: 'A few words: this becomes the working title.',
    required: true,
    serves: 'title',
  },
  { key: 'aim', kind: 'long', label: 'What should people do or feel after seeing it?', required: true },
  {
    key: 'audience',
    kind: 'choice',
    label: 'Who is it for first of all?',
    options: ['People who know us', 'People who do not know us yet', 'The trade'],
    required: true,
  },
  { key: 'wish', kind: 'date', label: 'When would you like it out?', serves: 'wish_date' },
  { key: 'page', kind: 'link', label: 'A page that people should reach', help: 'The full address, beginning with https://' },
  { key: 'pictures', kind: 'files', label: 'Pictures or papers that help', help: 'Pictures, clips, PDF or text, up to 2 GB each.' },
  { key: 'budget', kind: 'short', label: 'Anything about the budget?', agencyOnly: true },
];

export const CLIENTS = {
  moss: {
    code: 'MOSS',
    name: 'Mossgrove Nursery',
    colour: 4,
    zone: 'Pacific/Auckland',
    region: 'NZ-AUK',
    week: FULL_WEEK,
    usualTime: '08:00',
    policy: { kind: 'any' },
    pillars: ['In season', 'How to grow', 'Behind the glass'],
    channels: [
      { kind: 'photo_feed', name: 'Photo feed', copyLimit: 2200, ratio: '4:5' },
      { kind: 'newsletter', name: 'Newsletter', copyLimit: null, ratio: '2:1' },
      { kind: 'blog', name: 'Blog', copyLimit: null, ratio: '16:9' },
    ],
    contacts: [
      { name: 'Hana Reweti', email: 'hana@mossgrove.test', canSignOff: true },
      { name: 'Ollie Fairweather', email: 'ollie@mossgrove.test', canSignOff: false },
    ],
    form: {
      title: 'Ask for content',
      intro: 'Tell us what you have in mind. We answer within two working days.',
      route: 'still',
      fields: FIELDS,
    },
  },
  kiln: {
    code: 'KILN',
    name: 'Kiln Lane Bakehouse',
    colour: 0,
    zone: 'Europe/London',
    region: 'GB-ENG',
    week: [480, 480, 480, 480, 480, 0, 0],
    usualTime: '07:30',
    policy: { kind: 'all' },
    pillars: ['From the oven', 'The people', 'Offers'],
    channels: [
      { kind: 'photo_feed', name: 'Photo feed', copyLimit: 2200, ratio: '1:1' },
      { kind: 'short_clip_feed', name: 'Short-clip feed', copyLimit: 300, ratio: '9:16' },
      { kind: 'microblog', name: 'Microblog', copyLimit: 280, ratio: '16:9' },
    ],
    contacts: [
      { name: 'Greta Vosper', email: 'greta@kilnlane.test', canSignOff: true },
      { name: 'Sam Adewole', email: 'sam@kilnlane.test', canSignOff: true },
    ],
    form: { title: 'New idea for the bakehouse', intro: 'A line or two is enough to begin with.', route: 'still', fields: FIELDS },
  },
} as const;
export type ClientKey = keyof typeof CLIENTS;

/** How far a piece has come by today. Each word names the last thing that happened. */
export type Ending =
  | 'asked'
  | 'declined'
  | 'accepted'
  | 'assigned'
  | 'making'
  | 'stalled'
  | 'handed_back'
  | 'in_check'
  | 'ready'
  | 'with_client'
  | 'past_due'
  | 'changes_asked'
  | 'second_round'
  | 'approved'
  | 'pencilled'
  | 'scheduled'
  | 'changed_after'
  | 'out'
  | 'missed';

export interface StoryPiece {
  readonly client: ClientKey;
  readonly title: string;
  readonly route: RouteKey;
  readonly ending: Ending;
  /** days before today on which the request came */
  readonly askedDaysAgo: number;
  /** days from today of the wish date or placement; null: no date */
  readonly inDays: number | null;
  readonly copy: string;
  readonly pillar: number;
  /** positions of the client's channels */
  readonly channels: readonly number[];
  readonly picture: readonly [Motif, Palette, number];
}

const piece = (
  client: ClientKey,
  route: RouteKey,
  ending: Ending,
  [askedDaysAgo, inDays]: readonly [number, number | null],
  title: string,
  copy: string,
  pillar: number,
  channels: readonly number[],
  palette: Palette,
  seed: number,
): StoryPiece => ({
  client,
  route,
  ending,
  askedDaysAgo,
  inDays,
  title,
  copy,
  pillar,
  channels,
  picture: [client === 'moss' ? 'leaves' : 'loaves', palette, seed],
});

/** Twenty-four pieces at every stage, and requests that wait. */
export const STORY: readonly StoryPiece[] = [
  piece(
    'moss',
    'still',
    'out',
    [30, -6],
    'First ferns of the season',
    'The tree ferns are unrolling. Come and see them before they are taller than you.',
    0,
    [0],
    'fern',
    1,
  ),
  piece(
    'moss',
    'article',
    'out',
    [40, -9],
    'Repotting without tears',
    'A pot one size up, a dull knife, and patience. Here is how we do it under glass.',
    1,
    [1, 2],
    'loam',
    2,
  ),
  piece(
    'moss',
    'still',
    'missed',
    [28, -1],
    'Bench of the week: begonias',
    'Six leaf shapes, one bench. Which one would you take home?',
    2,
    [0],
    'dusk',
    3,
  ),
  piece(
    'moss',
    'letter',
    'scheduled',
    [24, 4],
    'Newsletter: what to sow now',
    'Five things to sow this week, and two that can wait.',
    0,
    [1],
    'moss',
    4,
  ),
  piece(
    'moss',
    'still',
    'scheduled',
    [22, 7],
    'Shade corner before and after',
    'A dark corner, three ferns, one stone. The whole thing took an afternoon.',
    1,
    [0, 2],
    'fern',
    5,
  ),
  piece(
    'moss',
    'still',
    'changed_after',
    [21, 9],
    'Moss lawns, honestly',
    'They are slow, they are soft, and they ask for shade. Then they ask for nothing.',
    1,
    [0, 2],
    'moss',
    6,
  ),
  piece(
    'moss',
    'still',
    'with_client',
    [14, 10],
    'Orchids that forgive',
    'Miss a watering. Miss two. These three still flower.',
    1,
    [0],
    'dusk',
    7,
  ),
  piece(
    'moss',
    'letter',
    'past_due',
    [18, 6],
    'Newsletter: open greenhouse',
    'Doors open on Saturday at nine. The kettle is on from half past eight.',
    2,
    [1],
    'loam',
    8,
  ),
  piece(
    'moss',
    'still',
    'changes_asked',
    [16, 12],
    'Meet the cutting bench',
    'Every plant here began as a cutting on this bench.',
    2,
    [0],
    'moss',
    9,
  ),
  piece(
    'moss',
    'article',
    'making',
    [8, 20],
    'Watering by weight',
    'Lift the pot. If it is light, water. That is the whole method.',
    1,
    [2],
    'fern',
    10,
  ),
  piece('moss', 'still', 'stalled', [15, 3], 'Summer bulbs arrive', '', 0, [0], 'dusk', 11),
  piece('moss', 'still', 'accepted', [3, 24], 'Gift plants for small flats', '', 0, [0, 1], 'moss', 12),
  piece('kiln', 'still', 'out', [26, -4], 'Seeded rye is back', 'Dark, dense, and back on the shelf from Tuesday.', 0, [0, 2], 'rye', 13),
  piece('kiln', 'clip', 'out', [33, -8], 'Scoring a loaf in nine seconds', 'One blade, one breath, nine seconds.', 1, [1], 'oven', 14),
  piece(
    'kiln',
    'still',
    'scheduled',
    [20, 3],
    'Saturday buns, counted',
    'We bake two hundred and forty. By eleven there are none.',
    0,
    [0],
    'oven',
    15,
  ),
  piece(
    'kiln',
    'still',
    'approved',
    [19, null],
    'The four o’clock loaf',
    'Half price from four, warm from the second bake.',
    2,
    [0, 2],
    'rye',
    16,
  ),
  piece(
    'kiln',
    'clip',
    'pencilled',
    [12, 11],
    'A day with the night baker',
    'At two in the morning the street is ours.',
    1,
    [1, 2],
    'dusk',
    17,
  ),
  piece(
    'kiln',
    'still',
    'second_round',
    [18, 9],
    'Why our butter is cold',
    'Cold butter, cold hands, hot oven. Layers need the difference.',
    0,
    [0],
    'oven',
    18,
  ),
  piece(
    'kiln',
    'still',
    'handed_back',
    [10, 8],
    'Sourdough, day one to five',
    'Flour, water, five days. Day three smells wrong. Day five does not.',
    0,
    [0],
    'rye',
    19,
  ),
  piece(
    'kiln',
    'still',
    'in_check',
    [9, 9],
    'Staff pick: the plait',
    'Plaited by hand, brushed with egg, gone by noon.',
    1,
    [0, 2],
    'oven',
    20,
  ),
  piece(
    'kiln',
    'still',
    'ready',
    [11, 10],
    'Order by Thursday',
    'Order by Thursday noon, collect on Saturday. No queue.',
    2,
    [0, 2],
    'rye',
    21,
  ),
  piece('kiln', 'clip', 'assigned', [5, 26], 'Inside the deck oven', '', 0, [1], 'oven', 22),
  piece('kiln', 'still', 'accepted', [4, null], 'Flour from three fields', '', 1, [0], 'rye', 23),
  piece('kiln', 'still', 'accepted', [2, 2], 'Pancake day, early', '', 2, [0, 2], 'oven', 24),
];

/** Requests that nobody has decided, and one declined. */
export const ASKED: readonly StoryPiece[] = [
  piece(
    'moss',
    'still',
    'asked',
    [1, 18],
    'Native seedlings for schools',
    'Teachers should write to us for a free tray.',
    0,
    [0],
    'fern',
    25,
  ),
  piece('kiln', 'still', 'asked', [0, 12], 'New oven, first bake', 'People should come and see it on Saturday.', 0, [0], 'oven', 26),
  piece('kiln', 'still', 'declined', [6, 2], 'A song about bread', 'People should sing along.', 1, [0], 'rye', 27),
];
