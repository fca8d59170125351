import type { ObstacleShape } from '@zesting/contract';
import { count, dayWords } from './format';

/** Who must act for it to go. */
export const whoseWords = ({ whose, personName }: Pick<ObstacleShape, 'whose' | 'personName'>, personIsViewer = false): string =>
  whose === 'client' ? 'the client' : whose === 'outside' ? 'somebody outside' : personIsViewer ? 'you' : (personName ?? 'a colleague');

/** Since when it stands, and until when it is expected to. */
export function ageWords({ days, sinceOn, untilOn }: Pick<ObstacleShape, 'days' | 'sinceOn' | 'untilOn'>, todayOn: string): string {
  const since = days <= 0 ? 'since today' : days === 1 ? 'since yesterday' : `for ${count(days, 'day')}, since ${dayWords(sinceOn)}`;
  if (untilOn === null) return since;
  return untilOn < todayOn ? `${since}; was to be gone ${dayWords(untilOn)}` : `${since}; expected until ${dayWords(untilOn)}`;
}
