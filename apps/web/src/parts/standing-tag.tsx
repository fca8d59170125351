import type { PreviewedOutputShape } from '@zesting/contract';
import { STANDING_WORDS } from '../lib/spin-off-words';
import { Tag, type Tone } from '../ui/tags';

const TONES: Readonly<Record<PreviewedOutputShape['standing'], Tone>> = {
  fine: 'pine',
  will_be_late: 'rhubarb',
  late: 'rhubarb',
  past: 'rhubarb',
};

/** Whether an output that is thought of would be in time. */
export const StandingTag = ({ standing }: { standing: PreviewedOutputShape['standing'] }) => (
  <Tag tone={TONES[standing]}>{STANDING_WORDS[standing]}</Tag>
);
