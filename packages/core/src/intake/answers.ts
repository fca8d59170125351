import { parseDay, type Day } from '../time/index.js';
import { isField, isListed, type Answer, type Answers, type FileKind, type FormField, type FormItem } from './form.js';
import { readForm } from './reading.js';

export type AnswerProblem =
  | 'required'
  | 'too_long'
  | 'too_short'
  | 'too_many'
  | 'too_few'
  | 'too_large'
  | 'too_small'
  | 'not_a_number'
  | 'not_whole'
  | 'not_an_option'
  | 'not_a_date'
  | 'in_the_past'
  | 'too_early'
  | 'too_late'
  | 'turned_round'
  | 'not_a_link'
  | 'not_an_email'
  | 'not_a_phone'
  | 'file_kind'
  | 'file_too_large'
  | 'unknown_field'
  | 'wrong_shape';

/** No field takes more, whatever its form says. */
export const SHORT_LIMIT = 200;
export const LONG_LIMIT = 10_000;
export const FILES_LIMIT = 10;
export const MEGABYTES_LIMIT = 2000;

/** What is known of a file that was uploaded. */
export interface KnownFile {
  readonly mime: string;
  readonly bytes: number;
}

interface Around {
  /** the client's date: a wish date before it is refused */
  readonly todayOn: Day;
  /** what is known of files by id; of those not known only their number is checked */
  readonly files?: Readonly<Record<string, KnownFile>>;
}

/** The answers that may be sent, and what is wrong with the others by field key. */
export interface CheckedAnswers {
  /** of fields that are shown, trimmed, without blanks */
  readonly answers: Answers;
  readonly problems: Readonly<Record<string, AnswerProblem>>;
}

/**
 * Checks answers against a form. The browser and the server run this same function. A field that is hidden is left out whatever it holds.
 * @returns one problem per field key; none when all is well
 */
export function checkAnswers(items: readonly FormItem[], given: Answers, around: Around): CheckedAnswers {
  const read = readForm(items, given);
  const problems: [key: string, problem: AnswerProblem][] = []; // keys come from outside: `__proto__` is one like any other
  const known = new Set(items.filter(isField).map((field) => field.key));
  for (const key of Object.keys(given)) if (!known.has(key)) problems.push([key, 'unknown_field']);
  for (const field of read.items.filter(isField)) {
    const answer = Object.hasOwn(read.answers, field.key) ? read.answers[field.key] : undefined;
    const shape = Object.hasOwn(given, field.key) ? given[field.key] : undefined;
    const problem = isMisshapen(field, shape)
      ? 'wrong_shape'
      : answer === undefined
        ? read.needed.has(field.key)
          ? 'required'
          : undefined
        : problemOf({ ...field, options: read.options.get(field.key) ?? [] }, answer, around);
    if (problem) problems.push([field.key, problem]);
  }
  return { answers: read.answers, problems: Object.fromEntries(problems) };
}

const isMisshapen = (field: FormField, answer: Answer | undefined): boolean =>
  answer !== undefined && Array.isArray(answer) !== isListed(field);

function problemOf(field: FormField, answer: Answer, around: Around): AnswerProblem | undefined {
  if (typeof answer !== 'string') return listProblem(field, answer, around);
  switch (field.kind) {
    case 'short':
      return lengthProblem(field, answer, SHORT_LIMIT);
    case 'long':
      return lengthProblem(field, answer, LONG_LIMIT);
    case 'number':
    case 'money':
      return numberProblem(field, answer);
    case 'day':
      return dayProblem(field, answer, around);
    case 'yes_no':
      return answer === 'yes' || answer === 'no' ? undefined : 'not_an_option';
    case 'one_of':
    case 'channel':
    case 'format':
    case 'pillar':
      return field.options?.some(({ value }) => value === answer) ? undefined : 'not_an_option';
    case 'link':
      return isLink(answer) ? undefined : 'not_a_link';
    case 'email':
      return isEmailLike(answer) ? undefined : 'not_an_email';
    case 'phone':
      return isPhone(answer) ? undefined : 'not_a_phone';
    default:
      return 'wrong_shape';
  }
}

function lengthProblem({ min, max }: FormField, text: string, limit: number): AnswerProblem | undefined {
  if (text.length > Math.min(max ?? limit, limit)) return 'too_long';
  return text.length < (min ?? 0) ? 'too_short' : undefined;
}

/** A decimal number with a point, at most 15 digits before and 6 after; money has two after at most. */
function numberProblem({ kind, min, max, whole }: FormField, text: string): AnswerProblem | undefined {
  const [, point] = /^-?\d{1,15}(?:\.(\d{1,6}))?$/.exec(text) ?? [undefined, 'none'];
  if (point === 'none' || (kind === 'money' && (point?.length ?? 0) > 2)) return 'not_a_number';
  const amount = Number(text);
  if (whole === true && !Number.isInteger(amount)) return 'not_whole';
  if (min !== undefined && amount < min) return 'too_small';
  return max !== undefined && amount > max ? 'too_large' : undefined;
}

function dayProblem(field: FormField, text: string, { todayOn }: Around): AnswerProblem | undefined {
  const day = parseDay(text);
  if (!day) return 'not_a_date';
  // what is asked for cannot be past; any other date may be, such as when something began
  if (field.serves === 'wish_date' && day < todayOn) return 'in_the_past';
  const [first, last] = [field.notBefore, field.notAfter].map((limit) => (limit === 'today' ? todayOn : limit));
  if (first !== undefined && day < first) return 'too_early';
  return last !== undefined && day > last ? 'too_late' : undefined;
}

function listProblem(field: FormField, answer: readonly string[], around: Around): AnswerProblem | undefined {
  if (field.kind === 'span') {
    const [from, to, more] = answer;
    if (from === undefined || to === undefined || more !== undefined) return 'not_a_date';
    return dayProblem(field, from, around) ?? dayProblem(field, to, around) ?? (to < from ? 'turned_round' : undefined);
  }
  const limit = field.kind === 'files' ? FILES_LIMIT : (field.options?.length ?? 0);
  if (field.kind !== 'files' && answer.some((value) => !field.options?.some((option) => option.value === value))) return 'not_an_option';
  if (new Set(answer).size < answer.length) return 'wrong_shape';
  if (answer.length > Math.min(field.max ?? limit, limit)) return 'too_many';
  if (answer.length < (field.min ?? 0)) return 'too_few';
  return field.kind === 'files' ? filesProblem(field, answer, around.files ?? {}) : undefined;
}

function filesProblem({ fileKinds, megabytes }: FormField, ids: readonly string[], files: Readonly<Record<string, KnownFile>>) {
  const known = ids.flatMap((id) => (Object.hasOwn(files, id) ? [files[id]] : [])).filter((file) => file !== undefined);
  if (fileKinds && fileKinds.length > 0 && known.some(({ mime }) => !fileKinds.includes(fileKindOf(mime)))) return 'file_kind';
  return known.some(({ bytes }) => bytes > (megabytes ?? MEGABYTES_LIMIT) * 1e6) ? 'file_too_large' : undefined;
}

/** What a file is, by its media type. */
export function fileKindOf(mime: string): FileKind {
  if (mime.startsWith('image/')) return 'picture';
  if (mime.startsWith('video/')) return 'clip';
  return mime.startsWith('audio/') ? 'sound' : 'paper';
}

/** Whether a text is an http or https address with a host of at least two names, and a port that there is. */
export function isLink(text: string): boolean {
  const [, port] = /^https?:\/\/[^\s/?#@:.]+(?:\.[^\s/?#@:.]+)+\.?(?::(\d{1,5}))?(?:[/?#]\S*)?$/i.exec(text.trim()) ?? [undefined, 'none'];
  return text.length <= 2000 && (port === undefined || (Number(port) >= 1 && Number(port) <= 65_535));
}

/** Whether mail could go to a text: something at a host of at least two names. Whether it arrives only mail tells. */
export const isEmailLike = (text: string): boolean =>
  text.length <= 200 && /^[^\s@<>,;:"()[\]\\]+@[^\s@.<>,;:"()[\]\\]+(?:\.[^\s@.<>,;:"()[\]\\]+)+$/.test(text);

/** Whether a text can be a telephone number: 5 to 15 digits (the most that ITU-T E.164 allows), with signs people write between them. */
export function isPhone(text: string): boolean {
  const digits = text.replace(/\D/g, '').length;
  return /^\+?[\d\s()./-]+$/.test(text) && digits >= 5 && digits <= 15;
}
