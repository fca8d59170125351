import { parseDay, type Day } from '../time/index.js';

export type FieldKind = 'short' | 'long' | 'choice' | 'date' | 'link' | 'files';

/** One question of an intake form. */
export interface FormField {
  readonly key: string;
  readonly kind: FieldKind;
  readonly label: string;
  readonly help?: string;
  readonly required?: boolean;
  readonly options?: readonly string[];
  /** what the answer also serves as: the request's title, or its wish date */
  readonly serves?: 'title' | 'wish_date';
  /** hidden from freelance creators */
  readonly agencyOnly?: boolean;
}

export type Answer = string | readonly string[];
export type Answers = Readonly<Record<string, Answer>>;

export type AnswerProblem =
  'required' | 'too_long' | 'not_an_option' | 'not_a_date' | 'in_the_past' | 'not_a_link' | 'unknown_field' | 'wrong_shape';

export const SHORT_LIMIT = 200;
export const LONG_LIMIT = 10_000;
export const FILES_LIMIT = 10;

function textProblem(field: FormField, text: string, todayOn: Day): AnswerProblem | undefined {
  if (text.trim() === '') return field.required ? 'required' : undefined;
  switch (field.kind) {
    case 'short':
      return text.length > SHORT_LIMIT ? 'too_long' : undefined;
    case 'long':
      return text.length > LONG_LIMIT ? 'too_long' : undefined;
    case 'choice':
      return field.options?.includes(text) ? undefined : 'not_an_option';
    case 'date': {
      const day = parseDay(text);
      if (!day) return 'not_a_date';
      // what is asked for cannot be past; any other date may be, such as when something began
      return field.serves === 'wish_date' && day < todayOn ? 'in_the_past' : undefined;
    }
    case 'link':
      return isLink(text) ? undefined : 'not_a_link';
    case 'files':
      return 'wrong_shape';
  }
}

/** Whether a text is an http or https address with a host of at least two names, and a port that there is. */
export function isLink(text: string): boolean {
  const [, port] = /^https?:\/\/[^\s/?#@:.]+(?:\.[^\s/?#@:.]+)+\.?(?::(\d{1,5}))?(?:[/?#]\S*)?$/i.exec(text.trim()) ?? [undefined, 'none'];
  return text.length <= 2000 && (port === undefined || (Number(port) >= 1 && Number(port) <= 65_535));
}

/**
 * Checks answers against the form's fields.
 * @param todayOn the client's date: a wish date before it is refused
 * @returns one problem per field key; empty when all is well
 */
export function checkAnswers(fields: readonly FormField[], answers: Answers, todayOn: Day): Record<string, AnswerProblem> {
  const problems: [key: string, problem: AnswerProblem][] = []; // keys come from outside: `__proto__` is one like any other
  const known = new Set(fields.map((field) => field.key));
  for (const key of Object.keys(answers)) if (!known.has(key)) problems.push([key, 'unknown_field']);
  for (const field of fields) {
    const given = Object.hasOwn(answers, field.key) ? answers[field.key] : undefined;
    const answer = given ?? (field.kind === 'files' ? [] : '');
    const problem = typeof answer === 'string' ? textProblem(field, answer, todayOn) : filesProblem(field, answer);
    if (problem) problems.push([field.key, problem]);
  }
  return Object.fromEntries(problems);
}

function filesProblem(field: FormField, files: readonly string[]): AnswerProblem | undefined {
  if (field.kind !== 'files') return 'wrong_shape';
  if (files.length > FILES_LIMIT) return 'too_long';
  return field.required && files.length === 0 ? 'required' : undefined;
}

/** The answer that serves a purpose, trimmed; undefined where the form has none or it was left empty. */
export function answerServing(
  fields: readonly FormField[],
  answers: Answers,
  serves: NonNullable<FormField['serves']>,
): string | undefined {
  const field = fields.find((candidate) => candidate.serves === serves);
  const answer = field && Object.hasOwn(answers, field.key) ? answers[field.key] : undefined;
  return typeof answer === 'string' && answer.trim() !== '' ? answer.trim() : undefined;
}
