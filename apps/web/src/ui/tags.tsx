import type { Danger } from '@zesting/core';
import type { ReactNode } from 'react';
import { DANGER_WORDS } from '../lib/words';

export type Tone = 'calm' | 'pine' | 'lake' | 'rind' | 'rhubarb';

const TONES: Record<Tone, string> = {
  calm: 'bg-sunk text-ink',
  pine: 'bg-pine-soft text-pine',
  lake: 'bg-lake-soft text-lake',
  rind: 'bg-rind-soft text-rind',
  rhubarb: 'bg-rhubarb-soft text-rhubarb',
};

/** A word on a soft ground. */
export function Tag({ tone = 'calm', children }: { tone?: Tone; children: ReactNode }) {
  return (
    <span className={`inline-flex items-center rounded-md px-1.5 text-[12px] leading-5 font-semibold whitespace-nowrap ${TONES[tone]}`}>
      {children}
    </span>
  );
}

const DANGER_TONES: Record<Danger, Tone> = {
  overdue: 'rhubarb',
  out_of_reach: 'rhubarb',
  will_be_late: 'rhubarb',
  tight: 'rind',
  fine: 'pine',
};

export const dangerTone = (danger: Danger | null): Tone => (danger === null ? 'calm' : DANGER_TONES[danger]);

export function DangerTag({ danger }: { danger: Danger | null }) {
  return danger === null ? null : <Tag tone={DANGER_TONES[danger]}>{DANGER_WORDS[danger]}</Tag>;
}

/** The colour of a client: twelve steps at equal lightness, always shown with the code. */
export const clientColour = (step: number): string => `oklch(var(--client-lightness) 0.13 ${step * 30 + 20})`;

/** The client's code, with its colour as a bar. */
export function ClientCode({ code, colour, name }: { code: string; colour: number; name?: string }) {
  return (
    <span className="inline-flex items-center gap-1.5 font-semibold tracking-wide text-[12px] whitespace-nowrap align-middle" title={name}>
      <span aria-hidden className="inline-block w-1 h-4 rounded-sm" style={{ background: clientColour(colour) }} />
      {code}
    </span>
  );
}
