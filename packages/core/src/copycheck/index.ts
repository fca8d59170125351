import { copyOnChannel, wordsOtherwise, wordsStanding, writtenTexts, type Content, type FormatText } from '../content/index.js';
import { charactersOf, countCharacters } from './characters.js';
import type { Finding, FindingPlace } from './findings.js';
import { answerState, brokenLinksIn, isWebAddress, linksIn, type LinkAnswers } from './links.js';
import type { MediaRules } from './media.js';
import { isTag, sameTag } from './tags.js';

export { charactersOf, countCharacters } from './characters.js';
export { answerState, brokenLinksIn, isWebAddress, linksIn, type AnswerState, type LinkAnswers, type LinkInText } from './links.js';
export { FINDING_CODES, type Finding, type FindingCode, type FindingPlace } from './findings.js';
export {
  fillShape,
  cutsOff,
  frameOn,
  mediacheck,
  mediaOn,
  wholeFrame,
  type CheckedMedium,
  type Frame,
  type MediaRules,
  type ShapeRules,
} from './media.js';
export { isTag, sameTag } from './tags.js';

/** Which words fit on a channel. */
export interface CopyRules {
  /** user-perceived characters; null without a limit */
  readonly copyLimit: number | null;
  /** whether tags are written into the text there, and count in its length */
  readonly countsTags: boolean;
  readonly tagLimit: number | null;
  /** whether an address in the text can be pressed there */
  readonly linksWork: boolean;
}

/** What fits on a channel. */
export type ChannelRules = CopyRules & MediaRules;

/** What a client asks of everything that goes out. */
export interface ClientRules {
  readonly wordsNever: readonly string[];
  /** the client's own words, as the client writes them */
  readonly wordsToUse: readonly string[];
  /** whether each piece says what it is: paid, given, in partnership */
  readonly needsDisclosure: boolean;
}

/** The text that goes out on a channel: its copy, with the disclosure below it where there is one. */
export const textOn = (content: Content, channelId: string): string =>
  [copyOnChannel(content, channelId).trimEnd(), content.shared.disclosure.trim()].filter((text) => text !== '').join('\n\n');

/** Tags as they are written: with their number signs, apart by spaces. */
export const writtenTags = (tags: readonly string[]): string => tags.map((tag) => `#${tag}`).join(' ');

/** A text as a channel folds it: what is seen at once, and what a press opens. @param foldsAt after how many user-perceived characters; null: never */
export function foldText(text: string, foldsAt: number | null): { readonly seen: string; readonly rest: string } {
  if (foldsAt === null) return { seen: text, rest: '' };
  const characters = charactersOf(text);
  return { seen: characters.slice(0, foldsAt).join(''), rest: characters.slice(foldsAt).join('') };
}

/** How many characters a channel counts in what goes out there: its text, and its tags where they stand in it. */
export function lengthOn(content: Content, channelId: string, rules: Pick<CopyRules, 'countsTags'>): number {
  const text = textOn(content, channelId);
  const tags = rules.countsTags ? writtenTags(content.channels[channelId]?.tags ?? []) : '';
  return countCharacters([text, tags].filter((one) => one !== '').join(' '));
}

/**
 * What speaks against the words that go out on a channel, by the channel's rules and the client's.
 * @returns findings in the order copy, tags, first comment, link, disclosure
 */
export function copycheck(content: Content, channelId: string, rules: CopyRules, client: ClientRules): Finding[] {
  const part = content.channels[channelId];
  const copy = copyOnChannel(content, channelId);
  const findings: Finding[] = [];
  const length = lengthOn(content, channelId, rules);
  if (rules.copyLimit !== null && length > rules.copyLimit)
    findings.push({ code: 'copy_long', severity: 'must', place: 'copy', count: length, limit: rules.copyLimit });
  findings.push(...never(copy, 'copy', client), ...otherwise(copy, 'copy', client));
  for (const what of brokenLinksIn(copy)) findings.push({ code: 'link_broken', severity: 'must', place: 'copy', what });
  const [link] = linksIn(copy);
  if (!rules.linksWork && link) findings.push({ code: 'link_dead', severity: 'should', place: 'copy', what: link.address });
  findings.push(...tagcheck(part?.tags ?? [], rules));
  const comment = part?.firstComment ?? '';
  findings.push(...never(comment, 'first_comment', client), ...otherwise(comment, 'first_comment', client));
  const beside = part?.link.trim() ?? '';
  if (beside !== '' && !isWebAddress(beside)) findings.push({ code: 'link_broken', severity: 'must', place: 'link', what: beside });
  if (client.needsDisclosure && content.shared.disclosure.trim() === '')
    findings.push({ code: 'disclosure_missing', severity: 'must', place: 'disclosure' });
  return findings;
}

/**
 * What speaks against the texts that a piece has besides its copy: one that is needed and not there, one that is too long, words of the client's.
 * @param asked what the piece's format has
 */
export const textcheck = ({ shared }: Content, asked: readonly FormatText[], client: ClientRules): Finding[] =>
  writtenTexts(asked, shared.texts).flatMap(({ name, text, limit, isNeeded }): Finding[] => {
    const length = countCharacters(text.trim());
    if (length === 0) return isNeeded ? [{ code: 'text_missing', severity: 'must', place: 'text', what: name }] : [];
    const long: Finding[] =
      limit !== null && length > limit ? [{ code: 'text_long', severity: 'must', place: 'text', what: name, count: length, limit }] : [];
    return [...long, ...never(text, 'text', client), ...otherwise(text, 'text', client)];
  });

const never = (text: string, place: FindingPlace, client: ClientRules): Finding[] =>
  wordsStanding(text, client.wordsNever).map((what) => ({ code: 'word_never', severity: 'must', place, what }));

const otherwise = (text: string, place: FindingPlace, client: ClientRules): Finding[] =>
  wordsOtherwise(text, client.wordsToUse).map((what) => ({ code: 'word_otherwise', severity: 'should', place, what }));

/** The places of a channel in which addresses stand, each with those that a page can be asked at. */
function linksAt(content: Content, channelId: string): { place: FindingPlace; address: string }[] {
  const part = content.channels[channelId];
  const beside = part?.link.trim() ?? '';
  const found: [FindingPlace, string[]][] = [
    ['copy', linksIn(textOn(content, channelId)).map(({ address }) => address)],
    ['first_comment', linksIn(part?.firstComment ?? '').map(({ address }) => address)],
    ['link', beside === '' ? [] : [beside]],
  ];
  return found.flatMap(([place, addresses]) =>
    [...new Set(addresses)].filter((address) => isWebAddress(address)).map((address) => ({ place, address })),
  );
}

/** The addresses of pages that go out on a channel, each once: in its text, its first comment and beside them. */
export const linksOn = (content: Content, channelId: string): string[] => [
  ...new Set(linksAt(content, channelId).map(({ address }) => address)),
];

/**
 * What the pages say to which the links of a channel lead. A page may come to stand only on the day, and one that was silent may answer again: somebody
 * decides. Of an address that was not asked nothing is said.
 */
export function linkcheck(content: Content, channelId: string, answers: LinkAnswers): Finding[] {
  return linksAt(content, channelId).flatMap(({ place, address }) => {
    const answer = answers.get(address);
    const state = answer === undefined ? 'there' : answerState(answer);
    return state === 'there' ? [] : { code: `link_${state}` as const, severity: 'should' as const, place, what: address };
  });
}

function tagcheck(tags: readonly string[], { tagLimit }: CopyRules): Finding[] {
  const findings: Finding[] = [];
  if (tagLimit !== null && tags.length > tagLimit)
    findings.push({ code: 'tags_many', severity: 'must', place: 'tags', count: tags.length, limit: tagLimit });
  const seen = new Set<string>();
  const twice = new Set<string>();
  for (const tag of tags) {
    if (!isTag(tag)) findings.push({ code: 'tag_broken', severity: 'must', place: 'tags', what: tag });
    const same = sameTag(tag);
    if (seen.has(same) && !twice.has(same)) {
      twice.add(same);
      findings.push({ code: 'tag_twice', severity: 'should', place: 'tags', what: tag });
    }
    seen.add(same);
  }
  return findings;
}
