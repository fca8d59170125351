import { DayField, type DayProps } from './day-field';

interface Span {
  readonly startOn: string;
  readonly endOn: string;
}

interface SpanFieldsProps extends Pick<DayProps, 'todayOn' | 'off' | 'min'> {
  readonly span: Span;
  readonly onChange: (span: Span) => void;
  readonly error?: string | undefined;
  readonly labels?: readonly [string, string];
}

/** The first and the last day of something; the last follows when the first is moved behind it. Two cells of a grid. */
export function SpanFields({ span, onChange, error, labels = ['First day', 'Last day'], ...days }: SpanFieldsProps) {
  const { startOn, endOn } = span;
  return (
    <>
      <DayField
        {...days}
        label={labels[0]}
        error={error}
        value={startOn}
        onChange={(on) => onChange({ startOn: on, endOn: endOn < on ? on : endOn })}
      />
      <DayField {...days} label={labels[1]} value={endOn} min={startOn || days.min} onChange={(on) => onChange({ startOn, endOn: on })} />
    </>
  );
}
