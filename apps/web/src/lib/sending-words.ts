import type { SendingShape } from '@zesting/contract';
import type { SendingCode } from '@zesting/core';

const WHY: Record<SendingCode, string> = {
  refused: 'The channel refused it',
  limited: 'The channel takes no more at present',
  unreachable: 'The channel cannot be reached',
  stopped: 'Sending is stopped',
  no_answer: 'The channel did not answer',
  not_known: 'The channel does not know of it',
  too_late: 'It could not be sent in time',
  not_ready: 'It was not sent',
  said_not_out: 'It is not out',
};

/** A reason of the channel's own, or of ours, as the end of a sentence. */
const because = (reason: string | null): string => (reason ? `: ${reason.replace(/[.\s]+$/, '')}` : '');

/** How a way to a channel stands, in words. @param time writes an instant */
export function sendingWords({ state, code, reason, tries, nextAt, settledBy }: SendingShape, time: (instant: string) => string): string {
  const why = code ? `${WHY[code]}${because(reason)}.` : '';
  switch (state) {
    case 'claimed':
      return tries === 0 && !code ? 'Being sent.' : `${why} Nothing is out. ${nextAt ? `Tried again at ${time(nextAt)}.` : ''}`.trim();
    case 'posted':
      return code ? `${why} It is asked whether it is out.` : 'Taken by the channel; it is asked whether it is out.';
    case 'unsure':
      return `${why} It may be out or not: look there, and say which.`.trim();
    case 'failed':
      return why;
    case 'not_out':
      return `${settledBy ?? 'Somebody'} looked: it is not out.`;
    case 'out':
      return settledBy ? `${settledBy} looked: it is out.` : '';
  }
}
