import type { GuidelineShape } from '@zesting/contract';
import { CHANNEL_WORDS } from '../../lib/words';

/** What a guideline is for: narrower with each word; everything, where nothing is said. */
export function forWords(
  { formatName, channelKind, skill }: Pick<GuidelineShape, 'formatName' | 'channelKind' | 'skill'>,
  clientName: string | undefined,
): string {
  const parts = [
    ...(formatName === null ? [] : [formatName]),
    ...(channelKind === null ? [] : [`on ${CHANNEL_WORDS[channelKind].toLowerCase()}`]),
    ...(skill === null ? [] : [`whoever does ${skill}`]),
  ];
  return [clientName ?? 'Every client', parts.length === 0 ? 'all of it' : parts.join(', ')].join(' · ');
}
