import type { IdeaMarks } from '@zesting/core';

const MARKS: readonly (readonly [keyof IdeaMarks, string, string, string])[] = [
  ['merit', 'Merit', 'little', 'much'],
  ['ease', 'Ease', 'hard', 'easy'],
  ['chance', 'Chance', 'doubtful', 'sure'],
];
const STEPS = [1, 2, 3, 4, 5];

/** What an idea is weighed by, 1 to 5 each; a mark that is pressed again is taken back. */
export function MarkFields({ marks, onChange }: { marks: IdeaMarks; onChange: (part: Partial<IdeaMarks>) => void }) {
  return (
    <div className="grid gap-1.5 mb-3.5">
      {MARKS.map(([key, name, least, most]) => (
        <div key={key} role="group" aria-label={name} className="flex flex-wrap items-center gap-1.5">
          <span className="font-medium w-14">{name}</span>
          <span className="text-muted text-[12px] w-16 text-right">{least}</span>
          {STEPS.map((step) => (
            <button
              key={step}
              type="button"
              aria-pressed={marks[key] === step}
              aria-label={`${name} ${step} of 5`}
              className={`rounded-md border border-line-strong size-8 tabular font-medium ${marks[key] === step ? 'bg-pine text-on-pine' : 'bg-card hover:bg-sunk'}`}
              onClick={() => onChange({ [key]: marks[key] === step ? null : step })}
            >
              {step}
            </button>
          ))}
          <span className="text-muted text-[12px]">{most}</span>
        </div>
      ))}
    </div>
  );
}
