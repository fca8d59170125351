import { asProse, writeProse } from '../prose/index.js';

/** A text of a content besides its copy: a subject line, a script, the words on a slide. It is signed with the shared part. */
export interface ContentText {
  /** what it is known by in its format, for good: another name is no change */
  readonly key: string;
  /** as it was called when it was written last */
  readonly name: string;
  readonly text: string;
}

/** Wordings that were thought of, by the key of the text that each would be. */
export type OtherWordings = Readonly<Record<string, readonly string[]>>;

/** Wordings without blanks and doubles, and without what is written already. */
export function wordingsOf(others: OtherWordings, texts: readonly ContentText[]): OtherWordings {
  const kept = Object.entries(others).map(([key, all]) => {
    const written = texts.find((text) => text.key === key)?.text.trim() ?? '';
    const wordings = [...new Set(all.map((wording) => wording.trim()))].filter((wording) => wording !== '' && wording !== written);
    return [key, wordings] as const;
  });
  return Object.fromEntries(kept.filter(([, wordings]) => wordings.length > 0));
}

/** A text that a format has besides the copy. */
export interface FormatText {
  readonly key: string;
  readonly name: string;
  /** several lines, or one */
  readonly isLong: boolean;
  /** its paragraphs are the words of slides, as `slideWords` reads them; absent: they are not */
  readonly isSlides?: boolean;
  /** what helps to write it; empty: nothing */
  readonly prompt: string;
  /** in user-perceived characters; null without a limit */
  readonly limit: number | null;
  /** whether a piece goes out only with it */
  readonly isNeeded: boolean;
}

/** A heading that a copy begins from, with what helps to write below it. */
export interface OutlineHeading {
  readonly heading: string;
  readonly prompt: string;
  /** only for copy that goes out on channels of these kinds and no others; absent or empty: wherever it goes out */
  readonly kinds?: readonly string[];
}

/** The headings of a format's outline for a copy that goes out on channels of these kinds. @param kinds empty: it is not known yet on which */
export const outlineFor = <Heading extends OutlineHeading>(outline: readonly Heading[], kinds: readonly string[]): Heading[] =>
  outline.filter(({ kinds: only = [] }) => only.length === 0 || (kinds.length > 0 && kinds.every((kind) => only.includes(kind))));

/** What is there to be written of a piece besides its copy. */
export interface WrittenText extends FormatText {
  readonly text: string;
  /** its format has it; what was written before it went from the format is still there to be read and taken out */
  readonly isAsked: boolean;
}

/** What a piece's format asks for and what is written, in the format's order; then what is written and no longer asked for. */
export function writtenTexts(asked: readonly FormatText[], have: readonly ContentText[] = []): WrittenText[] {
  const textOf = new Map(have.map(({ key, text }) => [key, text]));
  const keys = new Set(asked.map(({ key }) => key));
  return [
    ...asked.map((one) => ({ ...one, text: textOf.get(one.key) ?? '', isAsked: true })),
    ...have
      .filter(({ key }) => !keys.has(key))
      .map(({ key, name, text }) => ({ key, name, text, isLong: true, prompt: '', limit: null, isNeeded: false, isAsked: false })),
  ];
}

/**
 * Texts as somebody wrote them, under the names that they have now: the format's, else that which they had.
 * @returns undefined where one is named that neither the format has nor the content had
 */
export function namedTexts(
  given: readonly Pick<ContentText, 'key' | 'text'>[],
  asked: readonly FormatText[],
  before: readonly ContentText[] = [],
): ContentText[] | undefined {
  const known = new Map([...before, ...asked].map(({ key, name }) => [key, name]));
  const order = [...asked, ...before].map(({ key }) => key);
  const named = given.flatMap(({ key, text }) => {
    const name = known.get(key);
    return name === undefined ? [] : [{ key, name, text }];
  });
  if (named.length < given.length) return undefined;
  return named.sort((one, other) => order.indexOf(one.key) - order.indexOf(other.key));
}

/** An answer of the brief that a draft takes up. */
export interface DraftAnswer {
  readonly question: string;
  readonly answer: string;
}

/** What a draft is written for. */
interface DraftLook {
  /** with its headings as headings, to be read by `readProse` */
  readonly isLaidOut?: boolean;
}

/**
 * A first draft: an opening, the headings of an outline, and what the brief says, each apart by an empty line. What was answered stands below the heading
 * that has its name, else at the end with its question.
 */
export function firstDraft(
  opening: string,
  outline: readonly OutlineHeading[],
  answers: readonly DraftAnswer[],
  { isLaidOut = false }: DraftLook = {},
): string {
  const likeName = (text: string) =>
    text
      .normalize('NFC')
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
  const said = answers.filter(({ answer }) => answer.trim() !== '');
  const below = (heading: string) => said.filter(({ question }) => likeName(question) === likeName(heading));
  const placed = new Set(outline.flatMap(({ heading }) => below(heading)));
  const words = isLaidOut ? asProse : (text: string) => text.trim();
  const head = (text: string) =>
    isLaidOut ? writeProse([{ kind: 'heading', level: 1, runs: [{ text, isStrong: false, isEmphasis: false, link: null }] }]) : text.trim();
  const asked = ({ question, answer }: DraftAnswer) =>
    isLaidOut ? [head(question), words(answer)] : [`${question.trim()}\n${answer.trim()}`];
  return [
    words(opening),
    ...outline.flatMap(({ heading }) => [head(heading), ...below(heading).map(({ answer }) => words(answer))]),
    ...said.filter((one) => !placed.has(one)).flatMap(asked),
  ]
    .filter((part) => part !== '')
    .join('\n\n');
}
