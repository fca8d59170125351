import type { FormField } from '../intake/index.js';
import type { RouteStep } from '../route/index.js';

/**
 * What an agency may begin with: formats, the routes they usually take, skills, a form, channels by kind. Spans, hours and limits are
 * common practice of small agencies, not a standard: each is there to be changed.
 */

/** The generic kinds of channel. */
export const CHANNEL_KINDS = [
  'photo_feed',
  'short_clip_feed',
  'microblog',
  'professional_network',
  'video_site',
  'blog',
  'newsletter',
  'podcast',
  'community_board',
] as const;
export type ChannelKind = (typeof CHANNEL_KINDS)[number];

/** What a channel of a kind begins with. Limits are user-perceived characters, tags and pictures; null without one. */
export interface ChannelStock {
  readonly name: string;
  /** width to height */
  readonly ratio: string;
  readonly copyLimit: number | null;
  readonly tagLimit: number | null;
  readonly mediaLimit: number | null;
  /** working days between the last step and going out, beyond the day before */
  readonly leadDays: number;
}

export const CHANNEL_STOCK: Readonly<Record<ChannelKind, ChannelStock>> = {
  photo_feed: { name: 'Photo feed', ratio: '4:5', copyLimit: 2200, tagLimit: 30, mediaLimit: 10, leadDays: 0 },
  short_clip_feed: { name: 'Short-clip feed', ratio: '9:16', copyLimit: 300, tagLimit: 10, mediaLimit: 1, leadDays: 0 },
  microblog: { name: 'Microblog', ratio: '16:9', copyLimit: 280, tagLimit: 3, mediaLimit: 4, leadDays: 0 },
  professional_network: { name: 'Professional network', ratio: '1:1', copyLimit: 3000, tagLimit: 5, mediaLimit: 9, leadDays: 0 },
  video_site: { name: 'Video site', ratio: '16:9', copyLimit: 5000, tagLimit: 15, mediaLimit: 1, leadDays: 1 },
  blog: { name: 'Blog', ratio: '16:9', copyLimit: null, tagLimit: null, mediaLimit: null, leadDays: 0 },
  newsletter: { name: 'Newsletter', ratio: '2:1', copyLimit: null, tagLimit: 0, mediaLimit: null, leadDays: 1 },
  podcast: { name: 'Podcast', ratio: '1:1', copyLimit: 4000, tagLimit: null, mediaLimit: 1, leadDays: 1 },
  community_board: { name: 'Community board', ratio: '16:9', copyLimit: 10_000, tagLimit: 5, mediaLimit: 10, leadDays: 0 },
};

export const SKILL_STOCK: readonly string[] = ['write', 'design', 'film', 'edit', 'record', 'check'];

export interface RouteStock {
  readonly name: string;
  readonly formatName: string;
  readonly steps: readonly RouteStep[];
}

const make = (key: string, title: string, skill: string, spanDays: number, hours: number, after: string[] = []): RouteStep => ({
  key,
  title,
  kind: 'make',
  skill,
  spanDays,
  effortMinutes: hours * 60,
  after,
});

/** A making step that is done again when changes are asked. */
const again = (step: RouteStep, reworkSpanDays: number, reworkHours: number): RouteStep => ({
  ...step,
  reworkSpanDays,
  reworkEffortMinutes: reworkHours * 60,
});

/** How every piece ends: somebody else at the agency looks at it, then the client signs. */
const ending = (...after: string[]): RouteStep[] => [
  {
    key: 'check',
    title: 'Check',
    kind: 'check',
    skill: 'check',
    spanDays: 1,
    effortMinutes: 30,
    after,
    reworkSpanDays: 1,
    reworkEffortMinutes: 15,
  },
  {
    key: 'sign_off',
    title: 'Client sign-off',
    kind: 'sign_off',
    skill: 'sign_off',
    spanDays: 2,
    effortMinutes: 0,
    after: ['check'],
    reworkSpanDays: 1,
  },
];

/** A route for each usual format. */
export const ROUTE_STOCK: readonly RouteStock[] = [
  {
    name: 'Still with copy',
    formatName: 'Still',
    steps: [
      make('write', 'Write', 'write', 1, 1.5),
      again(make('design', 'Design', 'design', 2, 4, ['write']), 1, 1.5),
      ...ending('design'),
    ],
  },
  {
    name: 'Carousel',
    formatName: 'Carousel',
    steps: [
      make('outline', 'Outline', 'write', 1, 1),
      make('write', 'Write', 'write', 1, 2, ['outline']),
      again(make('design', 'Design', 'design', 3, 6, ['write']), 1, 2),
      ...ending('design'),
    ],
  },
  {
    name: 'Story',
    formatName: 'Story',
    steps: [make('write', 'Write', 'write', 1, 0.5), again(make('design', 'Design', 'design', 1, 2, ['write']), 1, 1), ...ending('design')],
  },
  {
    name: 'Short clip',
    formatName: 'Short clip',
    steps: [
      make('script', 'Script', 'write', 1, 2),
      make('film', 'Film', 'film', 2, 8, ['script']),
      again(make('edit', 'Edit', 'edit', 2, 6, ['film']), 1, 2),
      ...ending('edit'),
    ],
  },
  {
    name: 'Long video',
    formatName: 'Long video',
    steps: [
      make('script', 'Script', 'write', 3, 8),
      make('film', 'Film', 'film', 3, 16, ['script']),
      again(make('edit', 'Edit', 'edit', 5, 20, ['film']), 2, 6),
      make('still', 'Title picture', 'design', 1, 2, ['film']),
      ...ending('edit', 'still'),
    ],
  },
  {
    name: 'Article',
    formatName: 'Article',
    steps: [again(make('write', 'Write', 'write', 3, 8), 1, 2), make('picture', 'Picture', 'design', 1, 2), ...ending('write', 'picture')],
  },
  {
    name: 'Newsletter',
    formatName: 'Newsletter',
    steps: [
      again(make('write', 'Write', 'write', 2, 4), 1, 1),
      make('design', 'Header picture', 'design', 1, 2),
      ...ending('write', 'design'),
    ],
  },
  {
    name: 'Audio episode',
    formatName: 'Audio episode',
    steps: [
      make('script', 'Script', 'write', 2, 4),
      make('record', 'Record', 'record', 1, 3, ['script']),
      again(make('edit', 'Edit', 'edit', 2, 5, ['record']), 1, 2),
      make('notes', 'Episode notes', 'write', 1, 1.5, ['record']),
      ...ending('edit', 'notes'),
    ],
  },
  {
    name: 'Live session',
    formatName: 'Live session',
    steps: [
      again(make('plan', 'Running order', 'write', 2, 3), 1, 1),
      make('announce', 'Announcement', 'design', 1, 2, ['plan']),
      ...ending('plan', 'announce'),
    ],
  },
];

export interface FormStock {
  readonly title: string;
  readonly intro: string;
  readonly fields: readonly FormField[];
  /** the format whose route a request takes unless somebody says otherwise */
  readonly formatName: string;
}

/** A form that asks for what a brief needs. */
export const FORM_STOCK: FormStock = {
  title: 'Ask for content',
  intro: 'Tell us what you have in mind. A few words each are enough to begin with.',
  formatName: 'Still',
  fields: [
    {
      key: 'about',
      kind: 'short',
      label: 'What is it about?',
      help: 'A few words: this becomes the working title.',
      required: true,
      serves: 'title',
    },
    { key: 'aim', kind: 'long', label: 'What should people do or feel after seeing it?', required: true },
    { key: 'audience', kind: 'short', label: 'Who is it for first of all?' },
    { key: 'wish', kind: 'date', label: 'When would you like it out?', serves: 'wish_date' },
    { key: 'page', kind: 'link', label: 'A page that people should reach', help: 'The full address, beginning with https://' },
    { key: 'said', kind: 'long', label: 'What must be said, and what must not?' },
    { key: 'files', kind: 'files', label: 'Pictures or papers that help', help: 'Pictures, clips, PDF or text.' },
    { key: 'budget', kind: 'short', label: 'Anything about the budget?', agencyOnly: true },
  ],
};
