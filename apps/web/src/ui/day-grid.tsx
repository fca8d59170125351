import type { Day } from '@zesting/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useMemo } from 'react';
import { DayPicker, type DayButtonProps } from 'react-day-picker';
import { de } from 'react-day-picker/locale/de';
import { enGB } from 'react-day-picker/locale/en-GB';
import { useLanguage } from '../language/language';
import type { DayProps } from './day-field';

type GridProps = Omit<DayProps, 'onChange' | 'disabled'> & { readonly onChoose: (on: string) => void };

const toDate = (on: string): Date => {
  const [year = 0, month = 1, day = 1] = on.split('-').map(Number);
  return new Date(year, month - 1, day, 12);
};
const toDay = (date: Date): Day =>
  `${String(date.getFullYear()).padStart(4, '0')}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}` as Day; // as written

const NAVIGATION = 'grid place-items-center size-8 rounded-md hover:bg-sunk disabled:opacity-40';

/** A month with week numbers: days off are greyed with their reason, marked days have a line under them. */
export function DayGrid({ value, onChoose, todayOn, min, max, off, marks = [] }: GridProps) {
  const { t, code, dayWords } = useLanguage();
  const markOf = (on: string) => marks.find((mark) => mark.on === on);
  const wordsOf = (date: Date): string => {
    const on = toDay(date);
    return [dayWords(on, null), on === todayOn ? t('today') : '', markOf(on)?.words, off?.(on)].filter(Boolean).join(', ');
  };
  const components = useMemo(
    () => ({
      DayButton: ({ day, modifiers, ...button }: DayButtonProps) => (
        <button {...button} title={modifiers['off'] || modifiers['marked'] ? button['aria-label'] : undefined} data-day={toDay(day.date)} />
      ),
      Chevron: ({ orientation }: { orientation?: string }) =>
        orientation === 'left' ? <ChevronLeft size={16} aria-hidden /> : <ChevronRight size={16} aria-hidden />,
    }),
    [],
  );
  return (
    <>
      <DayPicker
        mode="single"
        required
        autoFocus
        locale={code === 'de' ? de : enGB}
        ISOWeek
        showWeekNumber
        fixedWeeks
        showOutsideDays
        today={toDate(todayOn)}
        defaultMonth={toDate(value || markOf(marks[0]?.on ?? '')?.on || todayOn)}
        selected={value ? toDate(value) : undefined}
        onSelect={(date) => onChoose(toDay(date))}
        disabled={[...(min ? [{ before: toDate(min) }] : []), ...(max ? [{ after: toDate(max) }] : [])]}
        modifiers={{ off: (date: Date) => off?.(toDay(date)) !== undefined, marked: (date: Date) => markOf(toDay(date)) !== undefined }}
        labels={{ labelDayButton: wordsOf }}
        components={components}
        modifiersClassNames={{ off: 'day-off', marked: 'day-marked' }}
        classNames={{
          root: 'day-grid',
          months: 'relative',
          month_caption: 'flex items-center justify-center h-8 font-display font-semibold',
          nav: 'absolute inset-x-0 top-0 flex justify-between',
          button_previous: NAVIGATION,
          button_next: NAVIGATION,
          month_grid: 'border-collapse mt-1',
          weekday: 'text-muted text-[12px] font-medium size-9',
          week_number_header: 'text-muted text-[11px] font-normal w-8',
          week_number: 'text-muted text-[11px] tabular text-center font-normal',
          day: 'p-0 text-center',
          day_button: 'size-9 rounded-md tabular hover:bg-sunk disabled:opacity-35 disabled:hover:bg-transparent',
          selected: 'day-chosen',
          today: 'day-today',
          outside: 'text-muted',
        }}
      />
      {marks.length > 0 && (
        <ul className="text-[12px] text-muted mt-2">
          {marks.map((mark) => (
            <li key={mark.words}>
              <span className="inline-block w-4 border-b-2 border-lake align-middle mr-1.5" aria-hidden />
              {mark.words}: {dayWords(mark.on, null)}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
