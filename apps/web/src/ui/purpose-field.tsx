import type { Purpose } from '@zesting/core';
import { PURPOSE_OPTIONS } from '../lib/words';
import { OptionField } from './option-field';

interface PurposeFieldProps {
  readonly value: Purpose | null | undefined;
  /** what stands for none */
  readonly none?: string;
  readonly onChange: (purpose: Purpose | null) => void;
}

/** What a piece, or what a slot wants, asks of people. */
export function PurposeField({ value, none = 'Not said', onChange }: PurposeFieldProps) {
  return (
    <OptionField
      label="Asks people to"
      none={none}
      value={value ?? null}
      options={PURPOSE_OPTIONS}
      onChange={(purpose) => onChange(PURPOSE_OPTIONS.find(({ id }) => id === purpose)?.id ?? null)}
    />
  );
}
