import type { Audience } from '@zesting/contract';
import { useId } from 'react';

const CHOICES: readonly { readonly value: Audience; readonly words: string }[] = [
  { value: 'team', words: 'Only the team sees it' },
  { value: 'client', words: 'The client reads it, too' },
];

/** Who reads what is written. */
export function AudienceField({ value, onChange }: { value: Audience; onChange: (audience: Audience) => void }) {
  const name = useId();
  return (
    <fieldset className="flex flex-wrap gap-x-4">
      <legend className="sr-only">Who reads it</legend>
      {CHOICES.map((choice) => (
        <label key={choice.value} className="inline-flex items-center gap-1.5 min-h-8 text-[13px]">
          <input
            type="radio"
            name={name}
            className="size-4 accent-pine"
            checked={value === choice.value}
            onChange={() => onChange(choice.value)}
          />
          {choice.words}
        </label>
      ))}
    </fieldset>
  );
}
