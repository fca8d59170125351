import { copyOnChannel, laidOutOn, type Content, type FormatText } from '../content/index.js';
import { asProse, proseHtml } from '../prose/index.js';
import {
  copycheck,
  linkcheck,
  mediacheck,
  textcheck,
  textOn,
  writtenTags,
  type ChannelRules,
  type CheckedMedium,
  type ClientRules,
  type Finding,
  type LinkAnswers,
} from '../copycheck/index.js';

/** What else is known of a placement before it goes out. */
export interface PreflightFacts {
  readonly content: Content;
  readonly channelId: string;
  readonly rules: ChannelRules;
  readonly client: ClientRules;
  /** what the piece's format has besides the copy */
  readonly texts: readonly FormatText[];
  /** the media that the channel shows, in their order there */
  readonly media: readonly CheckedMedium[];
  /** what the pages answered to which its links lead, as far as they were asked */
  readonly links: LinkAnswers;
  /** whether the client's policy approves both parts that go out here, as they stand */
  readonly isSigned: boolean;
  /** whether its time has passed */
  readonly hasPassed: boolean;
  /** between which days it may be out; a day that is null bounds nothing */
  readonly window: PublishWindow;
  /** what keeps the client from publishing on that day, each by its name */
  readonly blackouts: readonly string[];
  /** what else goes out on the same channel on the same day */
  readonly others: readonly { readonly pieceId: string; readonly title: string; readonly copy: string }[];
  readonly pieceId: string;
  /** the day on which it goes out; null: none yet */
  readonly on: string | null;
  /** where it goes out by itself: how the channel is reached; null where somebody posts it */
  readonly sending: SendingAccess | null;
}

/** The days on which something may be out, both included: an embargo, and the last day on which it holds. */
export interface PublishWindow {
  readonly notBeforeOn: string | null;
  readonly notAfterOn: string | null;
}

/** A day that lies outside a window: on which side, and the window's day there. */
export interface Outside {
  readonly kind: 'too_early' | 'too_late';
  readonly bound: string;
}

/** On which side of its window a day lies; null: inside. */
export function outsideOf({ notBeforeOn, notAfterOn }: PublishWindow, on: string): Outside | null {
  if (notBeforeOn !== null && on < notBeforeOn) return { kind: 'too_early', bound: notBeforeOn };
  return notAfterOn !== null && on > notAfterOn ? { kind: 'too_late', bound: notAfterOn } : null;
}

/** How a channel is reached on the day of a placement. */
export interface SendingAccess {
  /** what is stopped: the channel's name, the client's, or everything; null where nothing is */
  readonly stopped: string | null;
  /** whether access to the channel has ended by then */
  readonly hasEnded: boolean;
  /** whether those who shall get it have to be named, and are not */
  readonly lacksAudience: boolean;
}

/** Copy as one compares it: case and spaces aside. */
const likeCopy = (copy: string): string => copy.normalize('NFC').toLowerCase().replace(/\s+/g, ' ').trim();

/**
 * What speaks against a placement's going out, what must be settled first. A failed *must* stops it: not signed as it stands, its time passed, before its
 * embargo ends or after its last day, nothing in it, against the channel's rules or the client's, no way to the channel where it goes out by itself. What somebody may have meant is a *should*: a blackout, the same piece or the same words
 * twice on one channel on one day, a picture without alternative text, a link to a page that does not answer, a picture that was to be renewed by then.
 */
export function preflight(facts: PreflightFacts): Finding[] {
  const { content, channelId, rules, client, media } = facts;
  const copy = copyOnChannel(content, channelId);
  const findings: Finding[] = [];
  if (facts.hasPassed) findings.push({ code: 'time_passed', severity: 'must', place: 'date' });
  if (!facts.isSigned) findings.push({ code: 'not_signed', severity: 'must', place: 'copy' });
  if (copy.trim() === '' && media.length === 0 && (content.shared.texts ?? []).length === 0)
    findings.push({ code: 'empty', severity: 'must', place: 'copy' });
  findings.push(
    ...copycheck(content, channelId, rules, client),
    ...textcheck(content, facts.texts, client),
    ...linkcheck(content, channelId, facts.links),
    ...mediacheck(media, rules),
    ...oldcheck(media, facts.on),
  );
  findings.push(...windowcheck(facts), ...accesscheck(facts.sending));
  for (const what of facts.blackouts) findings.push({ code: 'blackout', severity: 'should', place: 'date', what });
  const twin = facts.others.find(
    (other) => other.pieceId === facts.pieceId || (likeCopy(copy) !== '' && likeCopy(other.copy) === likeCopy(copy)),
  );
  if (twin) findings.push({ code: 'twin', severity: 'should', place: 'date', what: twin.title });
  return [...findings.filter(({ severity }) => severity === 'must'), ...findings.filter(({ severity }) => severity === 'should')];
}

/** What shows something that is not so any more by the day on which it goes out. */
const oldcheck = (media: readonly CheckedMedium[], on: string | null): Finding[] =>
  media.flatMap(({ name, goodTo }) =>
    goodTo !== undefined && on !== null && on > goodTo ? [{ code: 'picture_old', severity: 'should', place: 'media', what: name }] : [],
  );

function windowcheck({ window, on }: PreflightFacts): Finding[] {
  const outside = on === null ? null : outsideOf(window, on);
  return outside ? [{ code: outside.kind, severity: 'must', place: 'date', what: outside.bound }] : [];
}

function accesscheck(sending: SendingAccess | null): Finding[] {
  if (!sending) return [];
  const findings: Finding[] = [];
  if (sending.stopped !== null) findings.push({ code: 'sending_stopped', severity: 'must', place: 'channel', what: sending.stopped });
  if (sending.hasEnded) findings.push({ code: 'access_ended', severity: 'must', place: 'channel' });
  if (sending.lacksAudience) findings.push({ code: 'audience_missing', severity: 'must', place: 'channel' });
  return findings;
}

/** Whether what is to go out is in order itself, whatever is the matter with the way to its channel: somebody can post it. */
export const isReadyByHand = (findings: readonly Finding[]): boolean => isReady(findings.filter(({ place }) => place !== 'channel'));

/** Whether nothing is left that must be settled. */
export const isReady = (findings: readonly Finding[]): boolean => findings.every(({ severity }) => severity !== 'must');

/** What is copied out by hand. */
export interface HandOut {
  /** copy, with its disclosure below it where it has one */
  readonly text: string;
  /** `text` as it is laid out, to be read by `readProse`; null: it is words alone */
  readonly laidOut: string | null;
  /** the same as HTML */
  readonly html: string | null;
  /** with their number signs, apart by spaces */
  readonly tags: string;
  readonly firstComment: string;
  readonly link: string;
  /** what there is besides, each by its name */
  readonly texts: readonly { readonly name: string; readonly text: string }[];
}

/** What goes out on a channel, as somebody copies it there: the text, then tags, first comment and link on their own. */
export function handOut(content: Content, channelId: string): HandOut {
  const part = content.channels[channelId];
  const copy = laidOutOn(content, channelId);
  const laidOut = copy === null ? null : [copy, asProse(content.shared.disclosure)].filter((source) => source !== '').join('\n\n');
  return {
    text: textOn(content, channelId),
    laidOut,
    html: laidOut === null ? null : proseHtml(laidOut),
    tags: writtenTags(part?.tags ?? []),
    firstComment: part?.firstComment.trim() ?? '',
    link: part?.link.trim() ?? '',
    texts: (content.shared.texts ?? []).map(({ name, text }) => ({ name, text: text.trim() })),
  };
}

/** The same as one text, as files carry it: parts apart by an empty line. */
export function handOutText(content: Content, channelId: string): string {
  const { text, tags, firstComment, link, texts } = handOut(content, channelId);
  const comment = firstComment === '' ? '' : `First comment: ${firstComment}`;
  const besides = texts.map((one) => `${one.name}: ${one.text}`);
  return `${[...besides, text, tags, link, comment].filter((one) => one !== '').join('\n\n')}\n`;
}
