import { asProse, slidesText, WRITING_STOCK, writtenTexts, type FormatText } from '@zesting/core';
import type { ContentTextBody } from '@zesting/contract';

/** What the story's formats are written by: what the starting stock gives, taken as it is. */
export const writingOf = (format: string): (typeof WRITING_STOCK)[string] => WRITING_STOCK[format] ?? { texts: [], outline: [] };

/** What stands in a text, out of what the story tells of a piece. */
const WORDS: Readonly<Record<string, (title: string, copy: string) => string>> = {
  subject: (title) => capital(title.replace(/^Newsletter: /, '')),
  preview: (_, copy) => firstSentence(copy),
  title: (title) => title,
  summary: (_, copy) => firstSentence(copy),
  hook: (_, copy) => firstSentence(copy),
  slides: (title) => slidesText(SLIDES[title] ?? []),
  script: (title, copy) => `Close on the hands. No words yet.\n“${copy}”\nLast shot: ${title.toLowerCase()}, held for two seconds.`,
};

/** What stands in copies that are laid out below what the story says of them in short, by the titles of their pieces. */
const BELOW: Readonly<Record<string, string>> = {
  'Newsletter: open greenhouse': `# What is ready

- Native seedlings, **two trays to a school**
- Ferns for shade, in three sizes
- The cutting bench, with somebody to ask

# How to find us

Follow the lane to the *second* gate: [the way, with a map](https://mossgrove.test/find-us).`,
  'Watering by weight': `# Why it works

Wet soil is heavy, dry soil is not, and your hand knows the difference before your eye does. **Colour tells you about the surface only.**

# How to learn it

1. Water a pot until it drips, and lift it.
2. Lift it every morning.
3. On the day it feels like an empty one, water again.

# What it is not for

- Succulents, which want to be light for a while
- Anything too large to lift: there, [use a stick](https://mossgrove.test/stick)`,
};

/** What else was thought of for the texts of a piece, by its title and their keys. */
const WORDINGS: Readonly<Record<string, Readonly<Record<string, readonly string[]>>>> = {
  'Newsletter: open greenhouse': { subject: ['Saturday at nine, and the kettle is on', 'Ferns in three sizes, people in all'] },
  'Watering by weight': { title: ['Your hand knows before your eye does', 'Stop looking at the soil'] },
};

/** A copy as it is laid out in the story. */
export const laidOutCopy = (title: string, copy: string): string =>
  copy === '' ? '' : [asProse(copy), BELOW[title] ?? ''].filter((part) => part !== '').join('\n\n');

/** The words of slides, by the titles of their pieces. */
const SLIDES: Readonly<Record<string, readonly string[]>> = {
  'Why our butter is cold': ['Cold butter, cold hands, hot oven.', 'Warm butter soaks in. Cold butter stays apart.', 'Apart means layers.'],
  'Sourdough, day one to five': [
    'Flour, water, five days.',
    'Day one: nothing to see. Good.',
    'Day three smells wrong. Feed it all the same.',
    'Day four: bubbles along the glass.',
    'Day five: it has doubled by noon. Bake.',
  ],
};

const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
const firstSentence = (copy: string): string => (copy.split(/(?<=[.?])\s/)[0] ?? '').replace(/\.$/, '');

/** The texts of a piece besides its copy, as far as the story has words for them. */
export function textsOf(asked: readonly FormatText[], title: string, copy: string): ContentTextBody[] {
  return writtenTexts(asked).flatMap(({ key, limit }) => {
    const text = WORDS[key]?.(title, copy) ?? '';
    const others = WORDINGS[title]?.[key];
    return text === '' || (limit !== null && text.length > limit) ? [] : [{ key, text, ...(others ? { others: [...others] } : {}) }];
  });
}
