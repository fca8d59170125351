interface ChoiceProps<Value extends string> {
  readonly label: string;
  readonly value: Value;
  readonly options: readonly (readonly [Value, string])[];
  readonly onChange: (value: Value) => void;
}

/** One of a few, side by side. */
export function Choice<Value extends string>({ label, value, options, onChange }: ChoiceProps<Value>) {
  return (
    <div
      role="group"
      aria-label={label}
      className="inline-flex flex-wrap max-w-full gap-px bg-line-strong rounded-md border border-line-strong overflow-hidden"
    >
      {options.map(([option, words]) => (
        <button
          key={option}
          type="button"
          aria-pressed={option === value}
          onClick={() => onChange(option)}
          className={`px-3 min-h-[30px] grow font-medium whitespace-nowrap ${option === value ? 'bg-pine text-on-pine' : 'bg-card hover:bg-sunk'}`}
        >
          {words}
        </button>
      ))}
    </div>
  );
}
