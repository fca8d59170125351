import type { PartState } from '@zesting/core';
import { PART_WORDS } from '../../lib/words';
import { Tag, type Tone } from '../../ui/tags';

const TONES: Record<PartState, Tone> = { signed: 'pine', returned: 'rind', voided: 'rhubarb', open: 'calm' };

/** How a part of the content is signed. */
export function PartTag({ state }: { state: PartState }) {
  return <Tag tone={TONES[state]}>{PART_WORDS[state]}</Tag>;
}
