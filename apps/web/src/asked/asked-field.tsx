import { isChoice, isListed, type Answer, type FormField } from '@zesting/core';
import type { UploadShape } from '@zesting/contract';
import { lazy, Suspense, type ReactNode } from 'react';
import { useLanguage } from '../language/language';
import { Field, type Control } from '../ui/field';
import { FieldGroup } from '../ui/field-group';

// the calendar and its window come after the page: it can be read and typed in before
const DayInput = lazy(() => import('../ui/day-field').then((module) => ({ default: module.DayInput })));
const FilesInput = lazy(() => import('./files-input').then((module) => ({ default: module.FilesInput })));

/** What a form is filled in with, beside its answers. */
export interface Around {
  readonly todayOn: string;
  /** the earliest realistic day for what is asked; null while it is not known */
  readonly earliestOn: string | null;
  /** why that day, in words */
  readonly earliestWhy?: string | undefined;
  /** the first day that keeps the notice; null without one */
  readonly noticeOn: string | null;
  /** uploads by id, so that their names and pictures can be shown */
  readonly files: Readonly<Record<string, UploadShape>>;
  /** where files are sent to; null where they cannot be */
  readonly uploadTo: string | null;
  readonly onFile: (key: string, file: UploadShape) => void;
  /** says how many files of a field are on their way */
  readonly onUnderWay: (key: string, count: number) => void;
}

export interface AskedFieldProps extends Around {
  readonly field: FormField;
  readonly needed: boolean;
  readonly answer: Answer | undefined;
  readonly error: string | undefined;
  readonly onAnswer: (answer: Answer) => void;
}

const asText = (answer: Answer | undefined): string => (typeof answer === 'string' ? answer : '');
const asList = (answer: Answer | undefined): readonly string[] => (typeof answer === 'string' || answer === undefined ? [] : answer);

/** One question, in the control that fits its kind. */
export function AskedField(props: AskedFieldProps) {
  const { field, needed, error, answer } = props;
  const help = field.serves === 'wish_date' ? <WishHelp {...props} wish={asText(answer)} /> : field.help;
  const shared = { label: field.label, help, error, required: needed };
  // what is chosen from a few, and the two days of a span, are groups of controls
  if (field.kind === 'yes_no' || field.kind === 'span' || (isChoice(field) && (isListed(field) || isFew(field))))
    return <FieldGroup {...shared}>{(describedBy) => <Grouped {...props} describedBy={describedBy} />}</FieldGroup>;
  return <Field {...shared}>{(control) => <Single {...props} control={control} />}</Field>;
}

/** So few choices are all shown. */
const isFew = ({ options = [] }: FormField): boolean => options.length <= 5;

function Single({ control, ...props }: AskedFieldProps & { control: Control }) {
  const { t } = useLanguage();
  const { field, answer, onAnswer } = props;
  const common = { ...control, className: 'field', value: asText(answer) };
  const change = (event: { target: { value: string } }) => onAnswer(event.target.value);
  switch (field.kind) {
    case 'files':
      return (
        <Suspense fallback={<Waiting />}>
          <FilesInput {...props} control={control} ids={asList(answer)} showsPictures />
        </Suspense>
      );
    case 'long':
      return <textarea {...common} rows={4} onChange={change} />;
    case 'day':
      return (
        <Suspense fallback={<Waiting />}>
          <DayInput
            {...dayProps(props, t('Earliest realistic date'))}
            control={control}
            label={field.label}
            value={asText(answer)}
            onChange={onAnswer}
          />
        </Suspense>
      );
    case 'link':
      return <input {...common} type="url" inputMode="url" placeholder="https://" onChange={change} />;
    case 'email':
      return <input {...common} type="email" onChange={change} />;
    case 'phone':
      return <input {...common} type="tel" onChange={change} />;
    case 'number':
    case 'money':
      return <NumberInput {...props} control={control} />;
    case 'one_of':
    case 'channel':
    case 'format':
    case 'pillar':
      return (
        <select {...common} onChange={change}>
          <option value="">{t('Choose…')}</option>
          {field.options?.map(({ value, label }) => (
            <option key={value} value={value}>
              {label ?? value}
            </option>
          ))}
        </select>
      );
    default:
      return <input {...common} onChange={change} />;
  }
}

const Waiting = () => <input className="field" disabled aria-hidden />;

/** A comma where people write one; the answer has a point. */
function NumberInput({ field, answer, onAnswer, control }: AskedFieldProps & { control: Control }) {
  return (
    <span className="flex items-center gap-2">
      <input
        {...control}
        className="field max-w-48 tabular"
        inputMode="decimal"
        value={asText(answer)}
        onChange={(event) => onAnswer(event.target.value.replace(',', '.'))}
      />
      {field.unit && <span className="text-muted">{field.unit}</span>}
    </span>
  );
}

function dayProps({ field, todayOn, earliestOn }: AskedFieldProps, earliest: string) {
  const isWish = field.serves === 'wish_date';
  const limit = (on: FormField['notBefore']) => (on === 'today' ? todayOn : on);
  return {
    todayOn,
    min: limit(field.notBefore) ?? (isWish ? todayOn : undefined),
    max: limit(field.notAfter),
    marks: isWish && earliestOn !== null ? [{ on: earliestOn, words: earliest }] : [],
  };
}

function Grouped(props: AskedFieldProps & { describedBy: string | undefined }) {
  const { t } = useLanguage();
  const { field, answer, onAnswer, error, describedBy } = props;
  if (field.kind === 'span') return <SpanInput {...props} />;
  const options =
    field.kind === 'yes_no'
      ? [
          { value: 'yes', label: t('Yes') },
          { value: 'no', label: t('No') },
        ]
      : (field.options ?? []);
  const isMany = isListed(field);
  const chosen = isMany ? asList(answer) : [asText(answer)];
  const toggle = (value: string, on: boolean) => {
    if (!isMany) return onAnswer(value);
    onAnswer(options.map((option) => option.value).filter((other) => (other === value ? on : chosen.includes(other))));
  };
  return (
    <div className={field.kind === 'yes_no' ? 'flex gap-6' : 'grid'}>
      {options.map(({ value, label }, index) => (
        <label key={value} className="flex items-center gap-2.5 min-h-11 sm:min-h-8">
          <input
            type={isMany ? 'checkbox' : 'radio'}
            name={field.key}
            className="size-4.5 accent-pine shrink-0"
            checked={chosen.includes(value)}
            aria-describedby={describedBy}
            aria-invalid={index === 0 && error !== undefined}
            onChange={(event) => toggle(value, event.target.checked)}
          />
          {label ?? value}
        </label>
      ))}
      {!isMany && chosen[0] && props.needed === false && (
        <button type="button" className="text-pine underline min-h-8 justify-self-start text-[13px]" onClick={() => onAnswer('')}>
          {t('Take the choice back')}
        </button>
      )}
    </div>
  );
}

/** First and last day; one alone stays as it is until the other is there. */
function SpanInput(props: AskedFieldProps & { describedBy: string | undefined }) {
  const { t } = useLanguage();
  const { field, answer, onAnswer, error, describedBy } = props;
  const [from = '', to = ''] = asList(answer);
  const put = (next: readonly [string, string]) => onAnswer(next.some(Boolean) ? [...next] : []);
  const control = (name: string): Control => ({
    id: `${field.key}-${name}`,
    'aria-describedby': describedBy,
    'aria-invalid': error !== undefined,
    'aria-required': props.needed,
  });
  const shared = { ...dayProps(props, ''), marks: [] };
  return (
    <Suspense fallback={<Waiting />}>
      <div className="grid grid-cols-2 gap-3">
        <Labelled label={t('From')} id={`${field.key}-from`}>
          <DayInput {...shared} control={control('from')} label={t('From')} value={from} onChange={(on) => put([on, to])} />
        </Labelled>
        <Labelled label={t('To')} id={`${field.key}-to`}>
          <DayInput
            {...shared}
            min={from || shared.min}
            control={control('to')}
            label={t('To')}
            value={to}
            onChange={(on) => put([from, on])}
          />
        </Labelled>
      </div>
    </Suspense>
  );
}

const Labelled = ({ label, id, children }: { label: string; id: string; children: ReactNode }) => (
  <div>
    <label htmlFor={id} className="text-muted text-[13px]">
      {label}
    </label>
    {children}
  </div>
);

/** Under the wish date: the earliest realistic one, and whether the notice is kept. */
function WishHelp({ field, wish, earliestOn, earliestWhy, noticeOn }: AskedFieldProps & { wish: string }) {
  const { t, dayWords } = useLanguage();
  const isTooSoon = earliestOn !== null && wish !== '' && wish < earliestOn;
  const isShort = noticeOn !== null && wish !== '' && wish < noticeOn && !isTooSoon;
  return (
    <>
      {field.help && <p>{field.help}</p>}
      {earliestOn !== null && (
        <p aria-live="polite" className={isTooSoon ? 'text-rind font-medium' : ''}>
          {isTooSoon && `${t('That is sooner than we can usually do.')} `}
          {t('The earliest realistic date is {{day}}.', { day: dayWords(earliestOn) })}
          {earliestWhy && ` ${earliestWhy}`}
        </p>
      )}
      {isShort && (
        <p className="text-rind font-medium">
          {t('We ask for notice: {{day}} would be the first day that keeps it.', { day: dayWords(noticeOn) })}
        </p>
      )}
    </>
  );
}
