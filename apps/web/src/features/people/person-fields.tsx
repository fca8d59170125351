import type { PersonRole } from '@zesting/contract';
import { X } from 'lucide-react';
import { ROLE_WORDS, SKILL_LEVELS } from '../../lib/words';
import { Field } from '../../ui/field';

export function RoleField({ value, onChange, disabled }: { value: PersonRole; onChange: (role: PersonRole) => void; disabled?: boolean }) {
  return (
    <Field label="Role">
      {(control) => (
        <select
          {...control}
          className="field"
          disabled={disabled}
          value={value}
          onChange={(event) => onChange(event.target.value as PersonRole)}
        >
          {Object.entries(ROLE_WORDS).map(([role, words]) => (
            <option key={role} value={role}>
              {words}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

/** Skills with their level, one per line, and a choice of those left. */
export function SkillsField({
  skills,
  known,
  onChange,
  disabled = false,
}: {
  skills: Readonly<Record<string, number>>;
  known: readonly string[];
  onChange: (skills: Record<string, number>) => void;
  disabled?: boolean;
}) {
  const left = known.filter((skill) => !(skill in skills));
  return (
    <fieldset className="mb-3.5">
      <legend className="font-medium mb-1">Skills</legend>
      {Object.keys(skills).length === 0 && <p className="text-muted mb-1">None yet: they can be given any step, but are offered last.</p>}
      <ul className="grid gap-1 mb-2 max-w-md">
        {Object.entries(skills).map(([skill, level]) => (
          <li key={skill} className="grid grid-cols-[minmax(0,1fr)_11rem_2rem] gap-2 items-center">
            <span className="truncate">{skill}</span>
            <select
              className="field"
              aria-label={`Level of ${skill}`}
              disabled={disabled}
              value={level}
              onChange={(event) => onChange({ ...skills, [skill]: Number(event.target.value) })}
            >
              {[1, 2, 3].map((choice) => (
                <option key={choice} value={choice}>
                  {SKILL_LEVELS[choice]}
                </option>
              ))}
            </select>
            {!disabled && (
              <button
                type="button"
                aria-label={`Take out ${skill}`}
                className="grid place-items-center size-7 rounded-md hover:bg-sunk"
                onClick={() => onChange(Object.fromEntries(Object.entries(skills).filter(([other]) => other !== skill)))}
              >
                <X size={15} aria-hidden />
              </button>
            )}
          </li>
        ))}
      </ul>
      {!disabled && left.length > 0 && (
        <select
          className="field max-w-md"
          aria-label="Another skill"
          value=""
          onChange={(event) => onChange({ ...skills, [event.target.value]: 2 })}
        >
          <option value="">Another skill…</option>
          {left.map((skill) => (
            <option key={skill} value={skill}>
              {skill}
            </option>
          ))}
        </select>
      )}
      {!disabled && known.length === 0 && (
        <p className="text-muted text-[13px]">The agency’s list of skills is empty: Setup, Agency, Formats and skills.</p>
      )}
    </fieldset>
  );
}
