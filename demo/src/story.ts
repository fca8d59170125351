import type { FormItem, RouteStep } from '@zesting/core';

/**
 * The made-up scenario: an agency in London with four clients, a plant nursery in Auckland, a bakehouse in London, a boat museum in
 * New York and weavers in London. Nothing here is real.
 */

export const PASSWORD = 'zest-and-pith';
export const FULL_WEEK = [480, 480, 480, 480, 480, 0, 0];

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
  ivo: {
    name: 'Ivo Harcastle',
    email: 'ivo@quillhaven.test',
    role: 'manager',
    zone: 'Europe/London',
    region: 'GB-ENG',
    week: FULL_WEEK,
    skills: { check: 3 },
    roundUp: 'daily',
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
  sunniva: {
    name: 'Sunniva Aldous',
    email: 'sunniva@quillhaven.test',
    role: 'staff',
    zone: 'America/New_York',
    region: 'US-NY',
    week: [420, 420, 420, 420, 0, 0, 0],
    skills: { write: 3, check: 2, design: 1 },
    roundUp: 'hourly',
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

export const SKILLS = ['write', 'design', 'film', 'check'] as const;
export const FORMATS = ['Still', 'Short clip', 'Newsletter', 'Article', 'Carousel'] as const;

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

const DESIGNED: RouteStep[] = [
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
];

export const ROUTES: Record<
  'still' | 'clip' | 'letter' | 'article' | 'carousel',
  { name: string; format: (typeof FORMATS)[number]; steps: RouteStep[] }
> = {
  still: {
    name: 'Still with copy',
    format: 'Still',
    steps: DESIGNED,
  },
  carousel: { name: 'Slides', format: 'Carousel', steps: DESIGNED },
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
      {
        ...check('write', 'design'),
        checklist: ['Subject and preview line read well on a phone', 'Every link pressed', 'Sent to ourselves, and read there'],
      },
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

export const ITEMS: FormItem[] = [
  {
    key: 'about',
    kind: 'short',
    label: 'What is it about?',
    help: 'A few words: this becomes the working title.',
    needed: true,
    serves: 'title',
  },
  { key: 'aim', kind: 'long', label: 'What should people do or feel after seeing it?', needed: true, serves: 'aim' },
  {
    key: 'audience',
    kind: 'one_of',
    label: 'Who is it for first of all?',
    options: [{ value: 'People who know us' }, { value: 'People who do not know us yet' }, { value: 'The trade' }],
    needed: true,
    serves: 'audience',
  },
  { key: 'wish', kind: 'day', label: 'When would you like it out?', serves: 'wish_date' },
  {
    key: 'page',
    kind: 'link',
    label: 'A page that people should reach',
    help: 'The full address, beginning with https://',
    serves: 'page',
  },
  {
    key: 'pictures',
    kind: 'files',
    label: 'Pictures or papers that help',
    help: 'Pictures, clips, PDF or text, up to 2 GB each.',
    serves: 'material',
  },
  { key: 'budget', kind: 'short', label: 'Anything about the budget?', agencyOnly: true },
];
