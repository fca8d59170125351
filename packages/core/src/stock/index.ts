export { WRITING_STOCK, type WritingStock } from './writing.js';
import type { FormField, FormItem } from '../intake/index.js';
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
  /** whether tags stand in the text and count in its length */
  readonly countsTags: boolean;
  /** whether an address in the text can be pressed */
  readonly linksWork: boolean;
  /** whether text alone is not enough */
  readonly needsMedia: boolean;
  /** the least width of a picture in pixels; null: any */
  readonly minWidth: number | null;
  /** shapes besides its own that are shown whole there, and whether others are cut */
  readonly otherShapes: readonly string[];
  readonly cutsMedia: boolean;
  /** the length of a clip or sound in seconds; null: any */
  readonly clipMinSeconds: number | null;
  readonly clipMaxSeconds: number | null;
  /** the most that one file may weigh, in millions of bytes; null: any */
  readonly fileLimitMb: number | null;
  /** what of a picture or clip the channel lays its own signs over, in hundredths of its height and width */
  readonly safeTop: number;
  readonly safeBottom: number;
  readonly safeSides: number;
  /** after so many characters the text is folded, and opened by a press; null: never */
  readonly foldsAt: number | null;
  /** whether what is out there can be opened at an address */
  readonly hasAddress: boolean;
  /** working days between the last step and going out, beyond the day before */
  readonly leadDays: number;
}

export const CHANNEL_STOCK: Readonly<Record<ChannelKind, ChannelStock>> = {
  photo_feed: {
    name: 'Photo feed',
    ratio: '4:5',
    copyLimit: 2200,
    tagLimit: 30,
    mediaLimit: 10,
    countsTags: false,
    linksWork: false,
    needsMedia: true,
    minWidth: 600,
    otherShapes: ['1:1'],
    cutsMedia: true,
    clipMinSeconds: 3,
    clipMaxSeconds: 90,
    fileLimitMb: 100,
    safeTop: 0,
    safeBottom: 0,
    safeSides: 0,
    foldsAt: 125,
    hasAddress: true,
    leadDays: 0,
  },
  short_clip_feed: {
    name: 'Short-clip feed',
    ratio: '9:16',
    copyLimit: 300,
    tagLimit: 10,
    mediaLimit: 1,
    countsTags: true,
    linksWork: false,
    needsMedia: true,
    minWidth: null,
    otherShapes: [],
    cutsMedia: true,
    clipMinSeconds: 3,
    clipMaxSeconds: 180,
    fileLimitMb: 500,
    safeTop: 12,
    safeBottom: 20,
    safeSides: 6,
    foldsAt: 100,
    hasAddress: true,
    leadDays: 0,
  },
  microblog: {
    name: 'Microblog',
    ratio: '16:9',
    copyLimit: 280,
    tagLimit: 3,
    mediaLimit: 4,
    countsTags: true,
    linksWork: true,
    needsMedia: false,
    minWidth: null,
    otherShapes: [],
    cutsMedia: false,
    clipMinSeconds: null,
    clipMaxSeconds: 140,
    fileLimitMb: 100,
    safeTop: 0,
    safeBottom: 0,
    safeSides: 0,
    foldsAt: null,
    hasAddress: true,
    leadDays: 0,
  },
  professional_network: {
    name: 'Professional network',
    ratio: '1:1',
    copyLimit: 3000,
    tagLimit: 5,
    mediaLimit: 9,
    countsTags: true,
    linksWork: true,
    needsMedia: false,
    minWidth: null,
    otherShapes: [],
    cutsMedia: false,
    clipMinSeconds: 3,
    clipMaxSeconds: 600,
    fileLimitMb: 200,
    safeTop: 0,
    safeBottom: 0,
    safeSides: 0,
    foldsAt: 210,
    hasAddress: true,
    leadDays: 0,
  },
  video_site: {
    name: 'Video site',
    ratio: '16:9',
    copyLimit: 5000,
    tagLimit: 15,
    mediaLimit: 1,
    countsTags: false,
    linksWork: true,
    needsMedia: true,
    minWidth: null,
    otherShapes: [],
    cutsMedia: false,
    clipMinSeconds: null,
    clipMaxSeconds: 43_200,
    fileLimitMb: 2000,
    safeTop: 0,
    safeBottom: 0,
    safeSides: 0,
    foldsAt: 160,
    hasAddress: true,
    leadDays: 1,
  },
  blog: {
    name: 'Blog',
    ratio: '16:9',
    copyLimit: null,
    tagLimit: null,
    mediaLimit: null,
    countsTags: false,
    linksWork: true,
    needsMedia: false,
    minWidth: 600,
    otherShapes: [],
    cutsMedia: false,
    clipMinSeconds: null,
    clipMaxSeconds: null,
    fileLimitMb: null,
    safeTop: 0,
    safeBottom: 0,
    safeSides: 0,
    foldsAt: null,
    hasAddress: true,
    leadDays: 0,
  },
  newsletter: {
    name: 'Newsletter',
    ratio: '2:1',
    copyLimit: null,
    tagLimit: 0,
    mediaLimit: null,
    countsTags: false,
    linksWork: true,
    needsMedia: false,
    minWidth: null,
    otherShapes: [],
    cutsMedia: false,
    clipMinSeconds: null,
    clipMaxSeconds: null,
    fileLimitMb: 10,
    safeTop: 0,
    safeBottom: 0,
    safeSides: 0,
    foldsAt: null,
    hasAddress: false,
    leadDays: 1,
  },
  podcast: {
    name: 'Podcast',
    ratio: '1:1',
    copyLimit: 4000,
    tagLimit: null,
    mediaLimit: 1,
    countsTags: false,
    linksWork: true,
    needsMedia: true,
    minWidth: null,
    otherShapes: [],
    cutsMedia: true,
    clipMinSeconds: null,
    clipMaxSeconds: null,
    fileLimitMb: 500,
    safeTop: 0,
    safeBottom: 0,
    safeSides: 0,
    foldsAt: null,
    hasAddress: true,
    leadDays: 1,
  },
  community_board: {
    name: 'Community board',
    ratio: '16:9',
    copyLimit: 10_000,
    tagLimit: 5,
    mediaLimit: 10,
    countsTags: false,
    linksWork: true,
    needsMedia: false,
    minWidth: null,
    otherShapes: [],
    cutsMedia: false,
    clipMinSeconds: null,
    clipMaxSeconds: null,
    fileLimitMb: 100,
    safeTop: 0,
    safeBottom: 0,
    safeSides: 0,
    foldsAt: 480,
    hasAddress: true,
    leadDays: 0,
  },
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

/** What a form begins with; its route is the one that its format usually takes. */
export interface FormStock {
  /** what the form is for, as the list of starting forms says it */
  readonly name: string;
  readonly formatName: string;
  readonly title: string;
  readonly intro: string;
  readonly items: readonly FormItem[];
}

const TITLE: FormField = {
  key: 'title',
  kind: 'short',
  label: 'What is it about?',
  help: 'A few words: this becomes the working title.',
  needed: true,
  serves: 'title',
};
const WISH: FormField = { key: 'wish', kind: 'day', label: 'When would you like it out?', serves: 'wish_date' };
const AUDIENCE: FormField = { key: 'audience', kind: 'short', label: 'Who is it for first of all?', serves: 'audience' };
const PAGE: FormField = {
  key: 'page',
  kind: 'link',
  label: 'A page that people should reach',
  help: 'The full address, beginning with https://',
  serves: 'page',
};
const FILES: FormField = {
  key: 'files',
  kind: 'files',
  label: 'Pictures or papers that help',
  help: 'Pictures, clips, PDF or text.',
  serves: 'material',
};
const SAID: FormField = { key: 'said', kind: 'long', label: 'What must be said, and what must not?' };
const BUDGET: FormField = { key: 'budget', kind: 'short', label: 'Anything about the budget?', agencyOnly: true };
const AIM: FormField = { key: 'aim', kind: 'long', label: 'What should people do or feel after seeing it?', needed: true, serves: 'aim' };
const options = (...values: string[]) => values.map((value) => ({ value }));

/** A form for each common need; the first is what a client begins with. */
export const FORM_STOCK: readonly [FormStock, ...FormStock[]] = [
  {
    name: 'A post',
    formatName: 'Still',
    title: 'Ask for content',
    intro: 'Tell us what you have in mind. A few words each are enough to begin with.',
    items: [TITLE, AIM, AUDIENCE, WISH, PAGE, SAID, FILES, BUDGET],
  },
  {
    name: 'An article',
    formatName: 'Article',
    title: 'Ask for an article',
    intro: 'What should be written about, and for whom? We come back with questions where we have some.',
    items: [
      TITLE,
      AIM,
      { ...AUDIENCE, needed: true },
      { key: 'points', kind: 'long', label: 'Which points must be in it?', serves: 'about' },
      { key: 'expert', kind: 'yes_no', label: 'Is there somebody we can talk to about it?' },
      {
        key: 'expert_name',
        kind: 'short',
        label: 'Who, and how do we reach them?',
        shownIf: { field: 'expert', is: 'is', value: 'yes' },
        agencyOnly: true,
      },
      WISH,
      PAGE,
      FILES,
    ],
  },
  {
    name: 'A clip',
    formatName: 'Short clip',
    title: 'Ask for a clip',
    intro: 'Tell us what should be seen. Material that you have already saves a day of filming.',
    items: [
      TITLE,
      AIM,
      AUDIENCE,
      WISH,
      { key: 'filming', kind: 'section', label: 'Filming' },
      {
        key: 'material',
        kind: 'one_of',
        label: 'Is there material already?',
        options: options('yes, all of it', 'some', 'no'),
        needed: true,
      },
      {
        ...FILES,
        label: 'The material',
        fileKinds: ['clip', 'picture', 'sound'],
        shownIf: { field: 'material', is: 'is_not', value: 'no' },
      },
      { key: 'place', kind: 'short', label: 'Where can we film?', shownIf: { field: 'material', is: 'is_not', value: 'yes, all of it' } },
      { key: 'people', kind: 'yes_no', label: 'Will people be seen who have to agree?', shownIf: { field: 'place', is: 'answered' } },
      {
        key: 'agreed',
        kind: 'long',
        label: 'Who are they, and have they agreed?',
        shownIf: { field: 'people', is: 'is', value: 'yes' },
        needed: true,
        agencyOnly: true,
      },
      { key: 'more', kind: 'section', label: 'What else' },
      SAID,
      PAGE,
    ],
  },
  {
    name: 'An event to support',
    formatName: 'Still',
    title: 'Tell us about an event',
    intro: 'What happens, when and where. We propose what to publish before, during and after.',
    items: [
      { ...TITLE, label: 'What is the event called?' },
      { key: 'when', kind: 'span', label: 'From when to when?', needed: true, notBefore: 'today' },
      { key: 'where', kind: 'one_of', label: 'Where is it?', options: options('at our place', 'somewhere else', 'online'), needed: true },
      { key: 'place', kind: 'short', label: 'The address', shownIf: { field: 'where', is: 'is', value: 'somewhere else' }, needed: true },
      { ...PAGE, label: 'Where can people read about it or book?' },
      {
        key: 'support',
        kind: 'several_of',
        label: 'What would help?',
        options: options('announce it', 'remind people', 'be there and show it', 'look back on it'),
        min: 1,
        needed: true,
      },
      {
        key: 'contact',
        kind: 'phone',
        label: 'Whom can we ring on the day?',
        shownIf: { field: 'support', is: 'contains', value: 'be there and show it' },
      },
      { ...WISH, label: 'When should the first piece be out?' },
      AUDIENCE,
      FILES,
    ],
  },
  {
    name: 'A month of dates',
    formatName: 'Still',
    title: 'Your dates of the month',
    intro: 'Launches, offers, events, closures: one line each is enough, such as “12 December: winter sale starts”.',
    items: [
      { ...TITLE, label: 'Which month?' },
      { key: 'dates', kind: 'long', label: 'The dates, one per line', needed: true, serves: 'about' },
      { key: 'first', kind: 'short', label: 'Which of them matters most?', serves: 'aim' },
      FILES,
    ],
  },
];
