import { useClients } from '../lib/queries';
import { Field } from '../ui/field';

interface ClientFieldProps {
  readonly clientId: string;
  readonly required?: boolean;
  readonly onChange: (clientId: string) => void;
}

/** Which of the clients that somebody sees a thing is for. */
export function ClientField({ clientId, required = false, onChange }: ClientFieldProps) {
  const { clients } = useClients();
  return (
    <Field label="Client" required={required}>
      {(control) => (
        <select {...control} className="field" value={clientId} onChange={(event) => onChange(event.target.value)}>
          {clients.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}
