import type { Day } from '@zesting/core';
import { CalendarDays } from 'lucide-react';
import { Popover } from 'radix-ui';
import { lazy, Suspense, useRef, useState, type ReactNode } from 'react';
import { useLanguage } from '../language/language';
import type { OffReason } from '../lib/off-days';
import { readDay, type WordReader } from '../lib/read-day';
import { Field } from './field';

const DayGrid = lazy(() => import('./day-grid').then((module) => ({ default: module.DayGrid })));

/** A day that the calendar marks, with what it is: "Earliest", "Latest". */
export interface DayMark {
  readonly on: string;
  readonly words: string;
}

export interface DayProps {
  /** empty: none */
  readonly value: string;
  readonly onChange: (on: string) => void;
  readonly todayOn: string;
  readonly min?: string | undefined;
  readonly max?: string | undefined;
  readonly off?: OffReason | undefined;
  readonly marks?: readonly DayMark[];
  readonly disabled?: boolean;
}

interface DayFieldProps extends DayProps {
  readonly label: string;
  readonly help?: ReactNode;
  readonly error?: string | undefined;
  readonly required?: boolean;
}

/**
 * A day: typed in figures or words, or chosen from a calendar that says who is off and why. What is typed is read at once; what is no day
 * says so, and is then none.
 */
export function DayField({ label, help, error, required = false, ...day }: DayFieldProps) {
  const { t } = useLanguage();
  const [unread, setUnread] = useState(false);
  const reason = day.value && day.off?.(day.value);
  return (
    <Field
      label={label}
      required={required}
      error={unread ? t('This is no day. Try 16/3, Tuesday, or in 3 days.') : error}
      help={
        reason || help ? (
          <>
            {reason && <p className="text-rind">{reason}</p>}
            {help}
          </>
        ) : undefined
      }
    >
      {(control) => <DayInput {...day} control={control} label={label} onUnread={setUnread} />}
    </Field>
  );
}

interface DayInputProps extends DayProps {
  readonly label: string;
  readonly control?: { readonly id?: string; readonly 'aria-describedby'?: string | undefined; readonly 'aria-invalid'?: boolean };
  readonly onUnread?: (unread: boolean) => void;
  /** asked when the field is left, with the day that stands in it */
  readonly onDone?: (on: string) => void;
}

/** The text of a day with the button to its calendar, for whoever brings a label. */
export function DayInput({ value, onChange, onUnread, onDone, control, label, disabled = false, ...calendar }: DayInputProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const { t, code, dayWords } = useLanguage();
  const words = useRef<WordReader | undefined>(undefined);
  const latest = useRef('');
  const todayOn = calendar.todayOn as Day; // a day of the contract's
  const isIn = (on: string) => (!calendar.min || on >= calendar.min) && (!calendar.max || on <= calendar.max);
  const put = (on: string) => {
    setTyped(null);
    onUnread?.(false);
    onChange(on);
    onDone?.(on);
  };
  const type = (text: string) => {
    latest.current = text;
    setTyped(text);
    onUnread?.(false);
    const read = readDay(text, todayOn, words.current);
    if (text.trim() === '') onChange('');
    else if (read && isIn(read)) onChange(read);
  };
  /** What reads words is fetched when somebody comes to the field. */
  const fetchWords = () => import('../lib/read-words').then((module) => (words.current = module.readWords[code])).catch(() => undefined);
  const settle = (text: string) => {
    const read = readDay(text, todayOn, words.current);
    if (text.trim() === '') put('');
    else if (read && isIn(read)) put(read);
    else {
      onChange('');
      onUnread?.(true);
    }
  };
  const leave = () => {
    if (typed === null) return;
    // who types faster than that comes is not told that it is no day
    if (words.current === undefined && !readDay(typed, todayOn)) void fetchWords().then(() => latest.current === typed && settle(typed));
    else settle(typed);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Anchor asChild>
        <div className="relative min-w-36">
          <input
            {...control}
            {...(control ? {} : { 'aria-label': label })}
            className="field tabular pr-9"
            type="text"
            autoComplete="off"
            disabled={disabled}
            placeholder={t('16/3 or Tuesday')}
            value={typed ?? (value && dayWords(value, null))} // always with its year, so that nothing has to be guessed
            onFocus={(event) => {
              event.target.select();
              void fetchWords();
            }}
            onChange={(event) => type(event.target.value)}
            onBlur={leave}
            onKeyDown={(event) => {
              if (event.key === 'Enter') leave();
              if (event.key === 'ArrowDown' && event.altKey) setOpen(true);
            }}
          />
          <Popover.Trigger asChild>
            <button
              type="button"
              disabled={disabled}
              aria-label={t('Open the calendar')}
              className="absolute right-0.5 top-1/2 -translate-y-1/2 grid place-items-center size-7 rounded-md hover:bg-sunk"
            >
              <CalendarDays size={16} aria-hidden />
            </button>
          </Popover.Trigger>
        </div>
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} className="z-[60] card shadow-2xl p-3" aria-label={t('Calendar')}>
          <Suspense fallback={<p className="text-muted w-[19rem] h-72">{t('Loading…')}</p>}>
            <DayGrid
              {...calendar}
              value={value}
              onChoose={(on) => {
                setOpen(false);
                put(on);
              }}
            />
          </Suspense>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A text that is read as it is typed: what can be read counts at once, what cannot leaves what was there when the field is left. */
export function useTyped(value: string, read: (text: string) => string | undefined, onChange: (value: string) => void) {
  const [typed, setTyped] = useState<string | null>(null);
  return {
    value: typed ?? value,
    onChange: (event: { target: { value: string } }) => {
      const text = event.target.value;
      setTyped(text);
      const found = text.trim() === '' ? '' : read(text);
      if (found !== undefined && found !== value) onChange(found);
    },
    onBlur: () => setTyped(null),
  };
}
