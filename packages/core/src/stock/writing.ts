import type { FormatText, OutlineHeading } from '../content/index.js';
import type { ChannelKind } from './index.js';

/** What pieces of a format are written by. */
export interface WritingStock {
  readonly texts: readonly FormatText[];
  readonly outline: readonly OutlineHeading[];
  /** copy has headings, lists and links; absent: it is words alone */
  readonly isLaidOut?: boolean;
}

const line = (key: string, name: string, prompt: string, limit: number | null = null): FormatText => ({
  key,
  name,
  isLong: false,
  prompt,
  limit,
  isNeeded: false,
});
const lines = (key: string, name: string, prompt: string): FormatText => ({ ...line(key, name, prompt), isLong: true });
const heading = (text: string, prompt: string, ...kinds: ChannelKind[]): OutlineHeading => ({
  heading: text,
  prompt,
  ...(kinds.length > 0 ? { kinds } : {}),
});

/** What the usual formats have besides their copy, and what their copy begins from, by the names of the formats: common practice, for the agency to change. */
export const WRITING_STOCK: Readonly<Record<string, WritingStock>> = {
  Carousel: {
    texts: [{ ...lines('slides', 'Slides', 'The first makes people stay, the last says what to do'), isSlides: true }],
    outline: [],
  },
  'Short clip': {
    texts: [
      line('hook', 'First words', 'What is said or shown in the first two seconds', 80),
      lines('script', 'Script', 'What is said and what is seen, line by line'),
      line('cover', 'Words on the cover', 'Four words at most read well on a phone', 40),
    ],
    outline: [],
  },
  'Long video': {
    texts: [
      { ...line('title', 'Title', 'What one gets from watching, in the words people look for', 70), isNeeded: true },
      lines('script', 'Script', 'What is said and what is seen, part by part'),
      lines('chapters', 'Chapters', 'A time and a few words to a line'),
    ],
    outline: [],
  },
  Article: {
    isLaidOut: true,
    texts: [
      { ...line('title', 'Title', 'What one learns from it', 70), isNeeded: true },
      line('summary', 'Summary', 'What stands below the title where it is found', 160),
    ],
    outline: [
      heading('What it is about', 'The question, and why somebody has it'),
      heading('What we know', 'Three things, each with an example'),
      heading('What to do now', 'One step that can be taken today'),
      heading('In two sentences', 'What makes a reader of the newsletter open the article', 'newsletter'),
    ],
  },
  Newsletter: {
    isLaidOut: true,
    texts: [
      { ...line('subject', 'Subject', 'Why open it today', 60), isNeeded: true },
      line('preview', 'Preview line', 'What stands beside the subject; it goes on where that ends', 100),
      line('action', 'Call to action', 'The words on the button: what one gets by pressing it', 40),
    ],
    outline: [],
  },
  'Audio episode': {
    texts: [
      { ...line('title', 'Title', 'What it is about, without the number', 70), isNeeded: true },
      lines('notes', 'Notes', 'Who speaks, what of, with times and links'),
    ],
    outline: [],
  },
  'Live session': { texts: [lines('script', 'Running order', 'Minute by minute: who speaks, what is shown')], outline: [] },
};
