import { Field } from '../ui/field';

/** The fewest characters of a password. */
export const SHORTEST_PASSWORD = 10;

/** What is wrong with a password that was typed twice, before the server judges it. */
export const passwordProblem = (password: string, again: string): string | undefined => {
  if (password.length < SHORTEST_PASSWORD) return `Choose at least ${SHORTEST_PASSWORD} characters.`;
  return password === again ? undefined : 'The two are not the same.';
};

interface PasswordProps {
  readonly label: string;
  readonly help?: string;
  readonly error?: string | undefined;
  readonly value: string;
  readonly onChange: (value: string) => void;
}

/** A new password. */
export function PasswordField({ value, onChange, ...field }: PasswordProps) {
  return (
    <Field {...field}>
      {(control) => (
        <input
          {...control}
          type="password"
          className="field"
          autoComplete="new-password"
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </Field>
  );
}
