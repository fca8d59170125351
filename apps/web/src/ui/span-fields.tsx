import { Field } from './field';

interface Span {
  readonly startOn: string;
  readonly endOn: string;
}

interface SpanFieldsProps {
  readonly span: Span;
  readonly onChange: (span: Span) => void;
  readonly error?: string | undefined;
  readonly labels?: readonly [string, string];
}

/** The first and the last day of something; the last follows when the first is moved behind it. Two cells of a grid. */
export function SpanFields({ span, onChange, error, labels = ['First day', 'Last day'] }: SpanFieldsProps) {
  const { startOn, endOn } = span;
  return (
    <>
      <Field label={labels[0]} error={error}>
        {(control) => (
          <input
            {...control}
            type="date"
            className="field"
            value={startOn}
            onChange={(event) => onChange({ startOn: event.target.value, endOn: endOn < event.target.value ? event.target.value : endOn })}
          />
        )}
      </Field>
      <Field label={labels[1]}>
        {(control) => (
          <input
            {...control}
            type="date"
            className="field"
            value={endOn}
            onChange={(event) => onChange({ startOn, endOn: event.target.value })}
          />
        )}
      </Field>
    </>
  );
}
