import type { BrandBody } from '@zesting/contract';
import type { ChannelKind, FormItem } from '@zesting/core';
import { ITEMS, FULL_WEEK, type PersonKey, type RouteKey } from './story.js';

interface StoryChannel {
  readonly kind: ChannelKind;
  readonly name: string;
  readonly copyLimit: number | null;
  readonly ratio: string;
  readonly leadDays?: number;
}

interface StoryMarker {
  readonly kind: 'launch' | 'offer' | 'event' | 'conference' | 'season_busy' | 'season_quiet' | 'production_day' | 'blackout' | 'closure';
  readonly name: string;
  /** first and last day, in days from today */
  readonly days: readonly [number, number];
}

export interface StoryClient {
  readonly code: string;
  readonly name: string;
  readonly colour: number;
  readonly zone: string;
  readonly region: string;
  readonly week: readonly number[];
  readonly usualTime: string;
  readonly manager: PersonKey;
  /** who writes and draws for the client */
  readonly writer: PersonKey;
  readonly designer: PersonKey;
  readonly policy:
    | { readonly kind: 'any' | 'all'; readonly silenceDays?: number }
    | { readonly kind: 'n_of'; readonly count: number }
    | { readonly kind: 'agency' };
  /** name and share in percent */
  readonly pillars: readonly (readonly [string, number])[];
  readonly channels: readonly StoryChannel[];
  readonly contacts: readonly { readonly name: string; readonly email: string; readonly canSignOff: boolean }[];
  readonly tags: readonly string[];
  /** alternative text of what is drawn for the client */
  readonly alt: string;
  readonly brand: Omit<BrandBody, 'logos'>;
  readonly observances: readonly string[];
  readonly markers: readonly StoryMarker[];
  readonly form: { readonly title: string; readonly intro: string; readonly route: RouteKey; readonly items: readonly FormItem[] };
}

export type ClientKey = 'moss' | 'kiln' | 'tide' | 'loom';

export const CLIENTS: Record<ClientKey, StoryClient> = {
  moss: {
    code: 'MOSS',
    name: 'Mossgrove Nursery',
    colour: 4,
    zone: 'Pacific/Auckland',
    region: 'NZ-AUK',
    week: FULL_WEEK,
    usualTime: '08:00',
    manager: 'dana',
    writer: 'noor',
    designer: 'piet',
    policy: { kind: 'any' },
    pillars: [
      ['In season', 40],
      ['How to grow', 35],
      ['Behind the glass', 25],
    ],
    channels: [
      { kind: 'photo_feed', name: 'Photo feed', copyLimit: 2200, ratio: '4:5' },
      { kind: 'newsletter', name: 'Newsletter', copyLimit: null, ratio: '2:1', leadDays: 1 },
      { kind: 'blog', name: 'Blog', copyLimit: null, ratio: '16:9' },
    ],
    contacts: [
      { name: 'Hana Reweti', email: 'hana@mossgrove.test', canSignOff: true },
      { name: 'Ollie Fairweather', email: 'ollie@mossgrove.test', canSignOff: false },
    ],
    tags: ['undergreen', 'slowgarden'],
    alt: 'Leaves in soft light on a potting bench',
    brand: {
      voice: 'Like a good neighbour over the fence: short sentences, plant names in plain words first, Latin after. Never in a hurry.',
      palette: [
        { name: 'Fern', hex: '#245748' },
        { name: 'Lichen', hex: '#cfe3dc' },
        { name: 'Pollen', hex: '#f2c46b' },
        { name: 'Bark', hex: '#4a3a2a' },
      ],
      wordsToUse: ['slow', 'by hand', 'this week'],
      wordsNever: ['instant', 'must-have', 'exotic'],
      disclosure: '',
    },
    observances: ["Mother's Day", "Valentine's Day", 'Christmas Eve', 'World Soil Day', 'International Day of Forests'],
    markers: [
      { kind: 'launch', name: 'Spring catalogue', days: [20, 20] },
      { kind: 'closure', name: 'Stocktaking', days: [13, 13] },
      { kind: 'season_busy', name: 'Planting weather', days: [30, 95] },
      { kind: 'season_quiet', name: 'Wet and cold', days: [180, 240] },
    ],
    form: {
      title: 'Ask for content',
      intro: 'Tell us what you have in mind. We answer within two working days.',
      route: 'still',
      items: ITEMS,
    },
  },
  kiln: {
    code: 'KILN',
    name: 'Kiln Lane Bakehouse',
    colour: 0,
    zone: 'Europe/London',
    region: 'GB-ENG',
    week: FULL_WEEK,
    usualTime: '07:30',
    manager: 'dana',
    writer: 'noor',
    designer: 'piet',
    policy: { kind: 'all' },
    pillars: [
      ['From the oven', 50],
      ['The people', 30],
      ['Offers', 20],
    ],
    channels: [
      { kind: 'photo_feed', name: 'Photo feed', copyLimit: 2200, ratio: '1:1' },
      { kind: 'short_clip_feed', name: 'Short-clip feed', copyLimit: 300, ratio: '9:16' },
      { kind: 'microblog', name: 'Microblog', copyLimit: 280, ratio: '16:9' },
    ],
    contacts: [
      { name: 'Greta Vosper', email: 'greta@kilnlane.test', canSignOff: true },
      { name: 'Sam Adewole', email: 'sam@kilnlane.test', canSignOff: true },
    ],
    tags: ['kilnlane', 'breadfirst'],
    alt: 'Loaves cooling side by side on a wooden rack',
    brand: {
      voice: 'Warm and dry. Numbers rather than adjectives: how many, how long, how hot. No exclamation marks.',
      palette: [
        { name: 'Crust', hex: '#8c4a25' },
        { name: 'Flour', hex: '#fff3df' },
        { name: 'Oven', hex: '#3a1f12' },
        { name: 'Butter', hex: '#e9c46a' },
      ],
      wordsToUse: ['by hand', 'from the oven', 'before eleven'],
      wordsNever: ['artisan', 'yummy', 'guilt-free'],
      disclosure: 'Offer while it lasts; ask in the shop about allergens.',
    },
    observances: ['Easter Sunday'],
    markers: [
      { kind: 'offer', name: 'Four o’clock week', days: [10, 12] },
      { kind: 'production_day', name: 'Filming at the oven', days: [6, 6] },
      { kind: 'conference', name: 'Grain and milling fair', days: [6, 7] },
    ],
    form: { title: 'New idea for the bakehouse', intro: 'A line or two is enough to begin with.', route: 'still', items: ITEMS },
  },
  tide: {
    code: 'TIDE',
    name: 'Tidelight Boat Museum and Working Yard',
    colour: 7,
    zone: 'America/New_York',
    region: 'US-NY',
    week: [0, 480, 480, 480, 480, 240, 0],
    usualTime: '10:00',
    manager: 'ivo',
    writer: 'sunniva',
    designer: 'piet',
    policy: { kind: 'n_of', count: 2 },
    pillars: [
      ['In the yard', 40],
      ['Stories from the water', 35],
      ['Do it yourself', 25],
    ],
    channels: [
      { kind: 'photo_feed', name: 'Photo feed', copyLimit: 2200, ratio: '4:5' },
      { kind: 'newsletter', name: 'Members’ letter', copyLimit: null, ratio: '2:1', leadDays: 2 },
      { kind: 'blog', name: 'Log book', copyLimit: null, ratio: '16:9' },
      { kind: 'video_site', name: 'Video site', copyLimit: 5000, ratio: '16:9' },
    ],
    contacts: [
      { name: 'Winnie Castellan', email: 'winnie@tidelight.test', canSignOff: true },
      { name: 'Abe Thorvald', email: 'abe@tidelight.test', canSignOff: true },
      { name: 'Rosalind Okonkwo-Featherstonehaugh', email: 'rosalind@tidelight.test', canSignOff: true },
    ],
    tags: ['tidelight', 'woodenboats'],
    alt: 'Hulls of wooden boats on the slip at low tide',
    brand: {
      voice: 'A boatbuilder explaining to a child of ten: exact, unhurried, with one joke at most.',
      palette: [
        { name: 'Deep', hex: '#16324f' },
        { name: 'Sail', hex: '#f4efe2' },
        { name: 'Buoy', hex: '#d1495b' },
      ],
      wordsToUse: ['she floats', 'by eye', 'members'],
      wordsNever: ['nautical-themed', 'ahoy'],
      disclosure: '',
    },
    observances: ["Valentine's Day", 'Christmas Eve'],
    markers: [
      { kind: 'event', name: 'Lantern night', days: [15, 15] },
      { kind: 'blackout', name: 'Memorial at the pier', days: [25, 26] },
    ],
    form: {
      title: 'Something for the museum',
      intro: 'Tell us what happens, when, and who it is for.',
      route: 'still',
      items: ITEMS,
    },
  },
  loom: {
    code: 'LOOM',
    name: 'Copperloom Weavers',
    colour: 10,
    zone: 'Europe/London',
    region: 'GB-ENG',
    week: [0, 420, 420, 420, 420, 0, 0],
    usualTime: '18:00',
    manager: 'ivo',
    writer: 'sunniva',
    designer: 'teo',
    policy: { kind: 'agency' },
    pillars: [
      ['Wool and dye', 45],
      ['At the loom', 35],
      ['For the house', 20],
    ],
    channels: [
      { kind: 'photo_feed', name: 'Photo feed', copyLimit: 2200, ratio: '1:1' },
      { kind: 'newsletter', name: 'Newsletter', copyLimit: null, ratio: '2:1', leadDays: 1 },
      { kind: 'blog', name: 'Workshop notes', copyLimit: null, ratio: '3:2' },
    ],
    contacts: [{ name: 'Maud Ellery', email: 'maud@copperloom.test', canSignOff: false }],
    tags: ['copperloom', 'handwoven'],
    alt: 'Threads of dyed wool stretched on a loom',
    brand: {
      voice: 'Quiet. What it is, who made it, how long it took. Prices are never in the copy.',
      palette: [
        { name: 'Copper', hex: '#9c5b34' },
        { name: 'Fleece', hex: '#efe9dd' },
        { name: 'Indigo', hex: '#27315f' },
      ],
      wordsToUse: ['woven here', 'eleven days'],
      wordsNever: ['boho', 'luxury'],
      disclosure: '',
    },
    observances: [],
    markers: [{ kind: 'event', name: 'Open loom Saturday', days: [17, 17] }],
    form: { title: 'A note to Quillhaven', intro: 'Write as you speak.', route: 'still', items: ITEMS },
  },
};
