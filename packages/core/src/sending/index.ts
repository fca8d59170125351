/**
 * How a placement goes out by itself: what is done next after each answer of its channel, or after none. Nothing is ever sent again while it may be out.
 */

/**
 * How a sending stands. `claimed`: nothing has left yet, or the channel said that nothing came of it; `posted`: it may be out, the channel is asked;
 * `unsure`: the channel does not say, a person decides; `out`, `failed` and `not_out` (a person's word) are the end of it.
 */
export const SENDING_STATES = ['claimed', 'posted', 'unsure', 'out', 'failed', 'not_out'] as const;
export type SendingState = (typeof SENDING_STATES)[number];

/** What a sending makes of its placement; of what is out the placement itself says so. */
export type SendingOfPlacement = 'sending' | 'unsure' | 'failed';

/** How a placement stands by its latest sending; null: the placement itself says how. */
export function sendingOfPlacement(state: SendingState | null): SendingOfPlacement | null {
  if (state === 'claimed' || state === 'posted') return 'sending';
  if (state === 'unsure') return 'unsure';
  return state === 'failed' || state === 'not_out' ? 'failed' : null;
}

/** What came of putting a post to a channel. */
export type PostAnswer =
  | { readonly kind: 'published'; readonly address: string | null; readonly at: string | null }
  /** taken, and not out yet */
  | { readonly kind: 'accepted' }
  /** not taken, and never will be like this */
  | { readonly kind: 'refused'; readonly reason: string }
  /** not taken now: too much came within a time */
  | { readonly kind: 'limited'; readonly afterSeconds: number | null }
  /** nothing of it left us */
  | { readonly kind: 'unreachable'; readonly reason: string }
  /** it may have been taken */
  | { readonly kind: 'unknown'; readonly reason: string };

/** What a channel says when it is asked for a post. */
export type AskAnswer =
  | { readonly kind: 'published'; readonly address: string | null; readonly at: string | null }
  | { readonly kind: 'pending' }
  | { readonly kind: 'refused'; readonly reason: string }
  /** it does not know of it; `isFinal`: and takes it no more under this reference, so that it can never come */
  | { readonly kind: 'none'; readonly isFinal: boolean }
  | { readonly kind: 'silent'; readonly reason: string };

/** Why a sending waits or ended, where the channel's own words do not say it. */
export const SENDING_CODES = [
  'refused',
  'limited',
  'unreachable',
  'stopped',
  'no_answer',
  'not_known',
  'too_late',
  'not_ready',
  'said_not_out',
] as const;
export type SendingCode = (typeof SENDING_CODES)[number];

/** What is to be done next. */
export interface SendingStep {
  readonly state: SendingState;
  /** seconds until it is gone on with; null: never by itself */
  readonly inSeconds: number | null;
  readonly code: SendingCode | null;
  /** the channel's words */
  readonly reason: string | null;
  /** what was put under the old reference can never come: the next try has a new one */
  readonly isAnew: boolean;
}

/** What is known of a sending when an answer comes. */
export interface SendingFacts {
  /** how often it was put before, this one counted */
  readonly tries: number;
  /** how often the channel was asked since, this one counted; 0: not yet */
  readonly asks: number;
  /** seconds until it may no longer go out by itself */
  readonly secondsLeft: number;
  /** seconds since it was put */
  readonly sincePosted: number;
}

/** Pauses before it is put again, in seconds; the last holds for all further ones. Common practice: growing, so that a channel in trouble is left alone. */
const PUT_AGAIN = [5, 15, 30, 60, 120, 300];
/** Pauses before the channel is asked again, in seconds. */
const ASK_AGAIN = [10, 30, 60, 120, 300, 600];
/** The first question comes soon: most of what gets lost is an answer. */
const ASK_FIRST_SECONDS = 2;
/** What is *taken, and not out yet* for longer is not on its way any more, as far as one can know. */
const PENDING_SECONDS = 3600;
/** The channel is asked for a day; after that only a person can say. */
const ASKED_SECONDS = 86_400;
/** What a channel asks us to wait at most, so that a strange number does not keep it for years. */
const WAIT_AT_MOST_SECONDS = 86_400;

const pause = (pauses: readonly number[], times: number): number => pauses[Math.min(Math.max(times, 1), pauses.length) - 1] ?? 60;

const ended = (state: 'out' | 'failed', code: SendingCode | null = null, reason: string | null = null): SendingStep => ({
  state,
  inSeconds: null,
  code,
  reason,
  isAnew: false,
});

/** Puts it again after a while, if that is still in time. */
function again(wait: number, { secondsLeft }: SendingFacts, code: SendingCode, reason: string | null, isAnew: boolean): SendingStep {
  const inSeconds = Math.min(Math.max(wait, 1), WAIT_AT_MOST_SECONDS);
  return inSeconds > secondsLeft ? ended('failed', 'too_late', reason) : { state: 'claimed', inSeconds, code, reason, isAnew };
}

/** What follows from what came of putting it: again only where nothing can have gone out, else the channel is asked. */
export function afterPost(answer: PostAnswer, facts: SendingFacts): SendingStep {
  switch (answer.kind) {
    case 'published':
      return ended('out');
    case 'refused':
      return ended('failed', 'refused', answer.reason);
    case 'limited':
      return again(Math.max(answer.afterSeconds ?? 0, pause(PUT_AGAIN, facts.tries)), facts, 'limited', null, false);
    case 'unreachable':
      return again(pause(PUT_AGAIN, facts.tries), facts, 'unreachable', answer.reason, false);
    case 'accepted':
      return { state: 'posted', inSeconds: ASK_FIRST_SECONDS, code: null, reason: null, isAnew: false };
    case 'unknown':
      return { state: 'posted', inSeconds: ASK_FIRST_SECONDS, code: 'no_answer', reason: answer.reason, isAnew: false };
  }
}

/** What follows from what a channel says of what may be out. Without a clear word a person decides; asking goes on meanwhile, it changes nothing. */
export function afterAsk(answer: AskAnswer, facts: SendingFacts): SendingStep {
  const wait = pause(ASK_AGAIN, facts.asks);
  const inSeconds = facts.sincePosted + wait > ASKED_SECONDS ? null : wait;
  switch (answer.kind) {
    case 'published':
      return ended('out');
    case 'refused':
      return ended('failed', 'refused', answer.reason);
    case 'pending':
      return { state: facts.sincePosted > PENDING_SECONDS ? 'unsure' : 'posted', inSeconds, code: null, reason: null, isAnew: false };
    case 'none':
      return answer.isFinal
        ? again(pause(PUT_AGAIN, facts.tries), facts, 'not_known', null, true)
        : { state: 'unsure', inSeconds, code: 'not_known', reason: null, isAnew: false };
    case 'silent':
      return { state: 'unsure', inSeconds, code: 'no_answer', reason: answer.reason, isAnew: false };
  }
}

/** What follows where sending was stopped after it was taken up and before anything left: it waits a little, in case that is lifted. */
export const afterStop = (facts: SendingFacts): SendingStep => again(pause(PUT_AGAIN, 3), facts, 'stopped', null, false);

/** What follows where the channel takes no more for so many seconds, by the limit that is kept here. */
export const afterLimit = (waitSeconds: number, facts: SendingFacts): SendingStep => again(waitSeconds, facts, 'limited', null, false);

/** What follows for a first comment that did not get under its post; it can be put twice without harm. Null: it is given up. */
export const commentAgainIn = (tries: number): number | null => (tries > 12 ? null : pause(PUT_AGAIN, tries));

/** Days before access to a channel ends from which it is said. */
export const ACCESS_WARNING_DAYS = 14;
