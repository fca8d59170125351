import { ruleOf, toPattern, type Pattern } from '@zesting/core';
import { useState } from 'react';
import { everyWords, nthName, rhythmWords, weekdayName } from '../lib/rhythm-words';
import { Choice } from './choice';
import { Field } from './field';

interface PatternFieldsProps {
  /** a recurrence rule of days, RFC 5545 */
  readonly rule: string;
  readonly error: string | undefined;
  readonly onChange: (rule: string) => void;
}

type Kind = Pattern['kind'] | 'own';

const KINDS: readonly (readonly [Kind, string])[] = [
  ['days', 'Daily'],
  ['weeks', 'Weekdays'],
  ['nth', 'Nth weekday'],
  ['date', 'Date'],
  ['own', 'Own rule'],
];
const FIRST: Record<Pattern['kind'], Pattern> = {
  days: { kind: 'days', every: 1 },
  weeks: { kind: 'weeks', every: 1, weekdays: [2] },
  nth: { kind: 'nth', every: 1, nth: -1, weekday: 5 },
  date: { kind: 'date', every: 1, date: 1 },
};
const EVERY: Record<Pattern['kind'], readonly number[]> = {
  days: [1, 2, 3, 4, 5, 6],
  weeks: [1, 2, 3, 4],
  date: [1, 2, 3, 4, 6, 12],
  nth: [1, 2, 3, 4, 6, 12],
};
const UNITS: Record<Pattern['kind'], string> = { days: 'day', weeks: 'week', date: 'month', nth: 'month' };
const WEEKDAYS = [1, 2, 3, 4, 5, 6, 7];
const NTHS = [1, 2, 3, 4, 5, -1];
const DATES = [...Array.from({ length: 31 }, (_, index) => index + 1), -1];

/** The days of a rule: one of the usual patterns, or a rule of one's own in the words of RFC 5545. */
export function PatternFields({ rule, error, onChange }: PatternFieldsProps) {
  const pattern = toPattern(rule);
  const [kind, setKind] = useState<Kind>(pattern?.kind ?? 'own');
  const choose = (next: Kind) => {
    setKind(next);
    if (next !== 'own' && pattern?.kind !== next) onChange(ruleOf(FIRST[next]));
  };
  const put = (next: Pattern) => onChange(ruleOf(next));
  return (
    <div className="mb-3.5">
      <p className="font-medium mb-1" id="days-of-rule">
        Days
      </p>
      <Choice label="How the days follow" value={kind} options={KINDS} onChange={choose} />
      <div className="mt-2">
        {kind === 'own' || !pattern ? (
          <Field
            label="Rule"
            error={error}
            help="As RFC 5545 has it, such as FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1 for the last working weekday."
          >
            {(control) => (
              <input {...control} className="field" maxLength={200} value={rule} onChange={(event) => onChange(event.target.value)} />
            )}
          </Field>
        ) : (
          <>
            {pattern.kind === 'weeks' && <Weekdays pattern={pattern} onPut={put} />}
            <div className="flex flex-wrap items-center gap-2 mt-2">
              {pattern.kind === 'nth' && (
                <>
                  <Pick
                    label="Which"
                    value={pattern.nth}
                    options={NTHS}
                    words={(nth) => `The ${nthName(nth)}`}
                    onPick={(nth) => put({ ...pattern, nth })}
                  />
                  <Pick
                    label="Weekday"
                    value={pattern.weekday}
                    options={WEEKDAYS}
                    words={weekdayName}
                    onPick={(weekday) => put({ ...pattern, weekday })}
                  />
                </>
              )}
              {pattern.kind === 'date' && (
                <Pick
                  label="Date"
                  value={pattern.date}
                  options={DATES}
                  words={(date) => (date === -1 ? 'The last day' : `The ${date}.`)}
                  onPick={(date) => put({ ...pattern, date })}
                />
              )}
              <Pick
                label="How often"
                value={pattern.every}
                options={EVERY[pattern.kind]}
                words={(every) => everyWords(every, UNITS[pattern.kind])}
                onPick={(every) => put({ ...pattern, every })}
              />
            </div>
            <p className="text-muted text-[13px] mt-1.5" aria-live="polite">
              {rhythmWords(rule)}
              {pattern.kind === 'date' && pattern.date > 28 && '. Months without that date are left out; “the last day” is in every month.'}
            </p>
          </>
        )}
      </div>
    </div>
  );
}

function Weekdays({ pattern, onPut }: { pattern: Extract<Pattern, { kind: 'weeks' }>; onPut: (pattern: Pattern) => void }) {
  return (
    <div role="group" aria-label="Weekdays" className="flex flex-wrap gap-1.5">
      {WEEKDAYS.map((weekday) => {
        const isOn = pattern.weekdays.includes(weekday);
        const weekdays = isOn
          ? pattern.weekdays.filter((other) => other !== weekday)
          : [...pattern.weekdays, weekday].sort((a, b) => a - b);
        return (
          <button
            key={weekday}
            type="button"
            aria-pressed={isOn}
            disabled={weekdays.length === 0}
            className={`rounded-md border border-line-strong min-h-8 px-2 font-medium ${isOn ? 'bg-pine text-on-pine' : 'bg-card hover:bg-sunk'}`}
            onClick={() => onPut({ ...pattern, weekdays })}
          >
            {weekdayName(weekday)}
          </button>
        );
      })}
    </div>
  );
}

interface PickProps {
  readonly label: string;
  readonly value: number;
  readonly options: readonly number[];
  readonly words: (option: number) => string;
  readonly onPick: (option: number) => void;
}

function Pick({ label, value, options, words, onPick }: PickProps) {
  const all = options.includes(value) ? options : [...options, value];
  return (
    <select className="field w-auto" aria-label={label} value={value} onChange={(event) => onPick(Number(event.target.value))}>
      {all.map((option) => (
        <option key={option} value={option}>
          {words(option)}
        </option>
      ))}
    </select>
  );
}
