import { PLACEMENT_WORDS } from '../lib/words';
import { Tag, type Tone } from './tags';

const TONES: Record<string, Tone> = {
  scheduled: 'pine',
  out: 'pine',
  pencilled: 'rind',
  missed: 'rhubarb',
  failed: 'rhubarb',
  unsure: 'rhubarb',
};

/** How a placement stands. */
export function PlacementTag({ state }: { state: string }) {
  return <Tag tone={TONES[state] ?? 'calm'}>{PLACEMENT_WORDS[state] ?? state}</Tag>;
}
