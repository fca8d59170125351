import type { TeamMateShape } from '@zesting/contract';
import { mentionedIn } from '../lib/mentions';

interface TellFieldProps {
  readonly team: readonly TeamMateShape[];
  /** what is being written: whose name stands behind an @ in it is told */
  readonly text: string;
  /** chosen by hand */
  readonly told: readonly string[];
  readonly onChange: (told: string[]) => void;
}

/** Who is told: chosen by hand, or by an @ in the text. */
export const toldOf = ({ team, text, told }: Pick<TellFieldProps, 'team' | 'text' | 'told'>): string[] => [
  ...new Set([...told, ...mentionedIn(text, team)]),
];

/** Who hears of what is written, in their round-up. */
export function TellField({ team, text, told, onChange }: TellFieldProps) {
  if (team.length === 0) return null;
  const typed = mentionedIn(text, team);
  return (
    <fieldset className="flex flex-wrap items-center gap-x-4">
      <legend className="float-left mr-3 text-muted text-[13px] min-h-8 leading-8">Tell</legend>
      {team.map(({ personId, name }) => (
        <label key={personId} className="inline-flex items-center gap-1.5 min-h-8 text-[13px]">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            checked={told.includes(personId) || typed.includes(personId)}
            disabled={typed.includes(personId)}
            onChange={({ target }) => onChange(target.checked ? [...told, personId] : told.filter((id) => id !== personId))}
          />
          {name}
        </label>
      ))}
    </fieldset>
  );
}
