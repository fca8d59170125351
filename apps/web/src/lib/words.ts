import type { ChannelKind, MarkerShape, PersonRole, StandingMarkerShape } from '@zesting/contract';
import { PROBLEMS, type ProblemCode } from '@zesting/contract/problems';
import type { Danger, PartState, PieceStage, Purpose, ReckoningList, RequestState, RoundUpRhythm, PublishWindow } from '@zesting/core';
import { outsideOf } from '@zesting/core';
import { dayWords } from './format';

/** Plain words for what went wrong: what happened, what was kept, what to do. */
const SPOKEN: Partial<
  Record<ProblemCode | 'http.offline' | 'http.unexpected' | 'http.too_many_tries' | 'http.too_large' | 'http.bad_request', string>
> = {
  'http.offline': 'The connection failed. Nothing you typed is lost; try again when you are back online.',
  'http.unexpected': 'Something went wrong on our side. What you typed is still here; try again.',
  'http.too_many_tries': 'Too many tries. Wait a minute, then try again.',
  'http.too_large': 'This file is larger than 25 MB. Send a smaller one.',
  'ask.too_much': 'More came through this form within the hour than is taken. Nothing you typed is lost: please try again later.',
  'ask.not_opened': 'This came too soon after the page was opened, or the page is very old. Nothing you typed is lost: press Send again.',
  'ask.form_changed': 'The form was changed meanwhile. What you typed is kept: look at it once more, then press Send again.',
  'http.try_again': 'Zesting cannot reach its data for a moment. Nothing was lost: try again.',
  'http.changed_meanwhile': 'Somebody else changed this meanwhile. Nothing was overwritten.',
  'access.sign_in_failed': 'E-mail or password is wrong.',
  'access.locked': 'Too many tries failed in a row. Wait some minutes, then try again; each further failure makes the wait longer.',
  'password.easily_guessed':
    'This password is one of those that are guessed first: it is common, follows a pattern, or is made of your name. A few words that do not belong together are better.',
  'access.signed_out': 'You are signed out. Sign in again; what you typed is kept on this page.',
  'access.link_not_open': 'This link is no longer valid. Ask your account manager for a new one.',
  'access.refused': 'You are not allowed to do this.',
  'access.not_found': 'There is nothing here, or it is not yours to see.',
  'file.type_refused': 'This kind of file is not taken. Send a picture, a clip, sound, a PDF, or a document.',
  'file.broken': 'This picture is damaged. Send it again, or export it anew.',
  'file.too_many_pixels': 'This picture has more than 50 million pixels. A smaller one shows just as well.',
  'file.gone': 'This file is no longer where it was kept. Whoever runs Zesting can bring it back from a backup.',
  'file.no_room': 'There is no room left for files. Nothing was stored; whoever runs Zesting must make room.',
  'decision.pictures_not_seen': 'Some pictures cannot be shown yet, so they cannot be approved yet. Try again in a moment.',
  'placement.in_past': 'That time has passed. Choose a later one.',
  'time.in_gap': 'The clocks jump over that time on that day. Choose another time.',
  'packet.due_on_day_off': 'The client does not work on that day. Choose a working day of theirs.',
  'packet.due_in_past': 'That day has passed for the client. Choose a later one.',
};

/** The words of a problem; `body` is what the server said besides its code. */
export const problemWords = (code: string, body: Readonly<Record<string, unknown>> = {}): string =>
  code === 'access.locked' && typeof body['minutes'] === 'number' ? lockedWords(body['minutes']) : plainWords(code);

const lockedWords = (minutes: number): string =>
  `Too many tries failed in a row. Wait ${minutes === 1 ? 'a minute' : `${minutes} minutes`}, then try again; each further failure makes the wait longer.`;

const plainWords = (code: string): string =>
  SPOKEN[code as ProblemCode] ?? (code in PROBLEMS ? `${PROBLEMS[code as ProblemCode].title}.` : (SPOKEN['http.unexpected'] ?? code));

export const DANGER_WORDS: Record<Danger, string> = {
  overdue: 'Overdue',
  out_of_reach: 'Out of reach',
  will_be_late: 'Will be late',
  tight: 'Tight',
  fine: 'Fine',
};

export const STAGE_WORDS: Record<PieceStage, string> = {
  shelved: 'Shelved',
  published: 'Published',
  scheduled: 'Scheduled',
  approved: 'Approved',
  with_client: 'With client',
  in_review: 'In review',
  in_production: 'In production',
  planned: 'Planned',
};

export const REQUEST_STATE_WORDS: Record<RequestState, string> = {
  new: 'To decide',
  asked_back: 'Asked back',
  accepted: 'Accepted',
  declined: 'Declined',
  idea: 'An idea for later',
  merged: 'Merged',
  withdrawn: 'Taken back',
};

export const PART_WORDS: Record<PartState, string> = {
  signed: 'Signed',
  returned: 'Changes asked',
  voided: 'Changed after sign-off',
  open: 'Not signed',
};

export const LIST_WORDS: Record<ReckoningList, string> = {
  trouble: 'Missed, failed or unsure',
  out_of_reach: 'Out of reach',
  overdue: 'Overdue',
  changed_after_sign_off: 'Changed after sign-off',
  returned: 'Returned by the client',
  will_be_late: 'Will be late',
  no_doer: 'Nobody has it',
  to_be_asked: 'To be asked of the client',
  with_client_past_due: 'With the client, past due',
  to_be_sent: 'To be sent',
  signed_undated: 'Signed, without a date',
  with_client: 'With the client',
  undated: 'Without a date',
  on_course: 'On course',
};

export const PLACEMENT_WORDS: Record<string, string> = {
  undated: 'Undated',
  pencilled: 'Pencilled',
  scheduled: 'Scheduled',
  sending: 'Sending',
  out: 'Out',
  missed: 'Missed',
  failed: 'Failed',
  unsure: 'Unsure',
  cancelled: 'Cancelled',
};

export const MARKER_WORDS: Record<MarkerShape['kind'], string> = {
  launch: 'Launch',
  offer: 'Offer',
  email: 'E-mail',
  live: 'Live',
  event: 'Event',
  conference: 'Conference',
  season_busy: 'Busy season',
  season_quiet: 'Quiet season',
  production_day: 'Production day',
  blackout: 'Blackout',
  closure: 'Closure',
  own: 'Of our own',
  holiday: 'Public holiday',
  observance: 'Observance',
};

/** What kind a marker is of: by the agency's own name for it, where it has one. */
export const markerKindWords = ({ kind, kindName }: Pick<MarkerShape, 'kind' | 'kindName'>): string => kindName ?? MARKER_WORDS[kind];

/** What speaks against a day, or takes its people. */
export function standingWords({ kind, name }: StandingMarkerShape): string {
  switch (kind) {
    case 'blackout':
      return `Blackout, ${name}: nothing should go out`;
    case 'production_day':
      return `Production day, ${name}: people are taken`;
    case 'too_early':
      return `It may not be out before ${dayWords(name)}`;
    case 'too_late':
      return `It holds only until ${dayWords(name)}`;
  }
}

/** What speaks against a day for something that may be out between two days; null: nothing. */
export function outsideWords(window: PublishWindow, on: string): string | null {
  const outside = outsideOf(window, on);
  return outside && standingWords({ kind: outside.kind, name: outside.bound });
}

export const ROLE_WORDS: Record<PersonRole, string> = {
  lead: 'Agency lead',
  manager: 'Account manager',
  staff: 'Staff creator',
  freelance: 'Freelance creator',
};

/** How often a person's messages come. */
export const RHYTHM_WORDS: Record<RoundUpRhythm, string> = {
  at_once: 'At once, one message per hand-off',
  hourly: 'Every hour, together',
  daily: 'Once a day, together',
};

/** By level, 1 to 3; 0 is not a skill of theirs. */
export const SKILL_LEVELS = ['Not a skill of theirs', 'Can do it', 'Does it well', 'Does it best'];

/** What a piece asks of people, as it is chosen, and in a word. */
export const PURPOSE_OPTIONS: readonly { readonly id: Purpose; readonly name: string }[] = [
  { id: 'know', name: 'Know something' },
  { id: 'react', name: 'React' },
  { id: 'come', name: 'Come' },
  { id: 'buy', name: 'Buy' },
];
export const PURPOSE_WORDS: Readonly<Record<Purpose, string>> = { know: 'to know', react: 'to react', come: 'to come', buy: 'to buy' };

/** Kinds of channels, by generic names. */
export const CHANNEL_WORDS: Record<ChannelKind, string> = {
  photo_feed: 'Photo feed',
  short_clip_feed: 'Short-clip feed',
  microblog: 'Microblog',
  professional_network: 'Professional network',
  video_site: 'Video site',
  blog: 'Blog',
  newsletter: 'Newsletter',
  podcast: 'Podcast',
  community_board: 'Community board',
};
