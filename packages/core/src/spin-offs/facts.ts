import { copyOnChannel, laidOutOn, copyWords, type Content, type Medium } from '../content/index.js';
import { canonical, plain, type Json } from '../digest/index.js';
import { asProse, headingMarks, proseWords, readProse, writeProse } from '../prose/index.js';
import type { Purpose } from '../mix/index.js';
import { slidesOf } from './slides.js';

/** What a source hands on to what is made from it, field by field. */
export const FACTS = ['title', 'purpose', 'copy', 'media', 'disclosure', 'link', 'tags'] as const;
export type Fact = (typeof FACTS)[number];

/** The facts of one output. Link and tags stand per channel, as they do in content. */
export interface Facts {
  readonly title: string;
  readonly purpose: Purpose | null;
  readonly copy: string;
  /** the copy as it is laid out, to be read by `readProse`; missing where it is words alone */
  readonly laidOut?: string;
  readonly media: readonly Medium[];
  readonly disclosure: string;
  readonly link: Readonly<Record<string, string>>;
  readonly tags: Readonly<Record<string, readonly string[]>>;
}

/** A piece as far as facts go. */
export interface FactPiece {
  readonly title: string;
  readonly purpose: Purpose | null;
  readonly content: Content;
}

/** How copy comes out of the source's: as it stands, or a slide for each main heading. */
export const COPY_SHAPES = ['as_it_is', 'slides'] as const;
export type CopyShape = (typeof COPY_SHAPES)[number];

/** How a source's facts are changed on their way to one output. */
export interface Adapting {
  /** what the output is called beside its source's title; empty: the title alone */
  readonly name: string;
  readonly shape: CopyShape;
  /** stands under the copy; empty: nothing does */
  readonly callToAction: string;
  /** facts that are made anew for the output: they begin empty and never follow */
  readonly anew: readonly Fact[];
}

/** The facts that a line of a spread has made anew. */
export const madeAnew = (needs: { readonly needsCopy: boolean; readonly needsPicture: boolean }): Fact[] => [
  ...(needs.needsCopy ? (['copy'] as const) : []),
  ...(needs.needsPicture ? (['media'] as const) : []),
];

/** A title is no longer, in UTF-16 units. */
const TITLE_MOST = 200;

/** What an output is called: its source's title, and its own name behind that. What is too long is cut, between characters. */
export const outputTitle = (title: string, name: string): string =>
  (name.trim() === '' ? title : `${title} · ${name.trim()}`).slice(0, TITLE_MOST).replace(/[\uD800-\uDBFF]$/, '');

/**
 * What a source hands on to an output on these channels. A channel that both have gives its own link, tags and (where it is the output's only
 * one) copy; another takes the first of the source's channels, by id, that has any.
 */
export function handedOn(source: FactPiece, channelIds: readonly string[], adapting: Adapting): Facts {
  const { content } = source;
  const inOrder = Object.entries(content.channels).sort(([a], [b]) => (a < b ? -1 : 1));
  const anyLink = inOrder.find(([, part]) => part.link !== '')?.[1].link ?? '';
  const anyTags = inOrder.find(([, part]) => part.tags.length > 0)?.[1].tags ?? [];
  const [only] = channelIds.length === 1 ? channelIds : [];
  const whole = only === undefined ? copyWords(content.shared) : copyOnChannel(content, only);
  const laidOut = only === undefined ? (content.shared.isLaidOut ? content.shared.copy : null) : laidOutOn(content, only);
  const isSlides = adapting.shape === 'slides';
  const copy = isSlides ? slidesOf(laidOut === null ? whole : headingMarks(laidOut)).join('\n\n') : whole;
  return {
    title: outputTitle(source.title, adapting.name),
    purpose: source.purpose,
    copy: withBelow(copy, adapting.callToAction),
    ...(laidOut === null || isSlides ? {} : { laidOut: writeProse(readProse(withBelow(laidOut, asProse(adapting.callToAction)))) }),
    media: content.shared.media,
    disclosure: content.shared.disclosure,
    link: Object.fromEntries(channelIds.map((id) => [id, content.channels[id]?.link || anyLink])),
    tags: Object.fromEntries(channelIds.map((id) => [id, content.channels[id]?.tags.length ? content.channels[id].tags : anyTags])),
  };
}

const withBelow = (copy: string, below: string): string => [copy, below].filter((words) => words.trim() !== '').join('\n\n');

/** The facts that a piece has itself, on these channels; one that it is not on has none there. */
export const factsOf = ({ title, purpose, content }: FactPiece, channelIds: readonly string[]): Facts => ({
  title,
  purpose,
  copy: copyWords(content.shared),
  ...(content.shared.isLaidOut ? { laidOut: content.shared.copy } : {}),
  media: content.shared.media,
  disclosure: content.shared.disclosure,
  link: Object.fromEntries(channelIds.map((id) => [id, content.channels[id]?.link ?? ''])),
  tags: Object.fromEntries(channelIds.map((id) => [id, content.channels[id]?.tags ?? []])),
});

/**
 * A piece with some of its facts put to others; channels that it is not on are left alone. Where its copy is laid out it stays so, and words are
 * paragraphs there; where it is words alone it takes the words.
 */
export function withFacts<Piece extends FactPiece>(piece: Piece, facts: Facts, which: readonly Fact[]): Piece {
  const isPut = (fact: Fact) => which.includes(fact);
  const { content } = piece;
  const channels = Object.fromEntries(
    Object.entries(content.channels).map(([id, part]) => [
      id,
      {
        ...part,
        ...(isPut('link') ? { link: facts.link[id] ?? part.link } : {}),
        ...(isPut('tags') ? { tags: facts.tags[id] ?? part.tags } : {}),
      },
    ]),
  );
  const shared = {
    ...content.shared,
    ...(isPut('copy') ? { copy: content.shared.isLaidOut ? (facts.laidOut ?? asProse(facts.copy)) : facts.copy } : {}),
    ...(isPut('media') ? { media: facts.media } : {}),
    ...(isPut('disclosure') ? { disclosure: facts.disclosure } : {}),
  };
  return {
    ...piece,
    ...(isPut('title') ? { title: facts.title } : {}),
    ...(isPut('purpose') ? { purpose: facts.purpose } : {}),
    content: { shared, channels },
  };
}

/** Whether two hold the same in one fact, as a digest would see it: by NFC, with line ends LF; files by their bytes and their words. */
export const sameFact = (fact: Fact, a: Facts, b: Facts): boolean =>
  fact === 'copy' && (a.laidOut !== undefined || b.laidOut !== undefined)
    ? sameLaidOut(a, b)
    : a[fact] === b[fact] || canonical(jsonOf(fact, a)) === canonical(jsonOf(fact, b));

/** Where both copies are laid out, that counts; where one is words alone, the words do, as they stand once they are put among paragraphs. */
function sameLaidOut(a: Facts, b: Facts): boolean {
  if (a.laidOut !== undefined && b.laidOut !== undefined) return plain(a.laidOut) === plain(b.laidOut);
  const words = ({ copy }: Facts): string => plain(proseWords(asProse(copy)));
  return words(a) === words(b);
}

function jsonOf(fact: Fact, facts: Facts): Json {
  switch (fact) {
    case 'title':
    case 'copy':
    case 'disclosure':
      return plain(facts[fact]);
    case 'purpose':
      return facts.purpose;
    case 'media':
      return facts.media.map(({ hash, alt, cover }) => ({ hash, alt: plain(alt), ...(cover === undefined ? {} : { cover }) }));
    case 'link':
      return facts.link;
    case 'tags':
      return Object.fromEntries(Object.entries(facts.tags).map(([id, tags]) => [id, tags.map(plain)]));
  }
}

/** Whether nothing stands in a fact. */
const isEmpty = (fact: Fact, facts: Facts): boolean =>
  fact === 'link' || fact === 'tags' ? Object.values(facts[fact]).every((each) => each.length === 0) : (facts[fact]?.length ?? 0) === 0;

/**
 * How an output stands to its source in one fact.
 * - `same`: both say the same, whoever wrote it
 * - `own`: the output says something else, and the source still says what was last taken over or looked at
 * - `stale`: the source says something else since
 */
export type FactState = 'same' | 'own' | 'stale';

/** An output beside its source. */
export interface Beside {
  /** what the output says */
  readonly output: Facts;
  /** what the source said when it was last taken over, or looked at and not taken */
  readonly seen: Facts;
  /** what the source says now */
  readonly source: Facts;
  /** facts that are made anew for the output */
  readonly anew: readonly Fact[];
}

export function factState(fact: Fact, { output, seen, source }: Beside): FactState {
  if (sameFact(fact, output, source)) return 'same';
  return sameFact(fact, seen, source) ? 'own' : 'stale';
}

/** The facts in which an output is behind its source, in their order. */
export const staleFacts = (beside: Beside): Fact[] => FACTS.filter((fact) => factState(fact, beside) === 'stale');

/** The facts that are the source's still and not changed on the output: they may follow by themselves. */
export const followable = ({ output, seen, source, anew }: Beside): Fact[] =>
  FACTS.filter((fact) => !anew.includes(fact) && sameFact(fact, output, seen) && !sameFact(fact, seen, source));

/** `seen` with some facts as the source has them now: they were taken over, or looked at. */
export const seenNow = (seen: Facts, source: Facts, which: readonly Fact[]): Facts =>
  which.reduce<Facts>((facts, fact) => {
    const { laidOut, ...rest } = { ...facts, [fact]: source[fact] };
    const seenLayout = fact === 'copy' ? source.laidOut : laidOut;
    return { ...rest, ...(seenLayout === undefined ? {} : { laidOut: seenLayout }) };
  }, seen);

/** What a change of a source comes to for one output. */
export interface BroughtUp<Piece extends FactPiece> {
  readonly output: Piece;
  readonly seen: Facts;
  /** the facts that followed by themselves */
  readonly followed: readonly Fact[];
  /** the facts in which the output is behind afterwards */
  readonly stale: readonly Fact[];
}

/**
 * Brings an output up to its source as far as that goes by itself: what is the source's still follows, what was changed on the output stays. The source is only read.
 * @param seen as it is kept with the output; its channels are those that link and tags are compared on
 * @param mayFollow false where somebody was shown the output already: nothing follows then, all of it is said to be behind
 */
export function follow<Piece extends FactPiece>(
  output: Piece,
  seen: Facts,
  source: FactPiece,
  adapting: Adapting,
  mayFollow: boolean,
): BroughtUp<Piece> {
  const channelIds = Object.keys(seen.link);
  const now = handedOn(source, channelIds, adapting);
  const followed = mayFollow ? followable({ output: factsOf(output, channelIds), seen, source: now, anew: adapting.anew }) : [];
  const next = withFacts(output, now, followed);
  const said = factsOf(next, channelIds);
  // what both say the same needs no look later; what is made anew and not begun will be made from what the source says by then
  const known = FACTS.filter((fact) => sameFact(fact, said, now) || (adapting.anew.includes(fact) && isEmpty(fact, said)));
  const kept = seenNow(seen, now, known);
  return {
    output: next,
    seen: kept,
    followed,
    stale: staleFacts({ output: said, seen: kept, source: now, anew: adapting.anew }),
  };
}
