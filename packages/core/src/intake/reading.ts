import { parseDay } from '../time/index.js';
import {
  isChoice,
  isField,
  isListed,
  testsIn,
  type Answer,
  type Answers,
  type Condition,
  type FieldOption,
  type FormField,
  type FormItem,
} from './form.js';

/** A form as it stands with some answers. */
export interface ReadForm {
  /** what is shown, in order */
  readonly items: readonly FormItem[];
  /** what counts: answers of fields that are shown, trimmed, without blanks and without choices that are not offered any more */
  readonly answers: Answers;
  /** keys of the fields that must be answered */
  readonly needed: ReadonlySet<string>;
  /** what each field of choices offers now, by key */
  readonly options: ReadonlyMap<string, readonly FieldOption[]>;
}

/** A choice that could be made at all, whatever its parent says: an answer that is none of them is wrong, not stale. */
const knows = (field: FormField, value: string): boolean => field.options?.some((option) => option.value === value) ?? false;

/**
 * Reads a form with the answers given so far. A field that is hidden counts as not answered, so that what depends on it hides too; a field of
 * choices that has none left is hidden. Total: of fields that wait for each other in a loop (see `formFaults`) the first met is hidden.
 */
export function readForm(items: readonly FormItem[], given: Answers): ReadForm {
  const byKey = new Map(items.map((item) => [item.key, item]));
  const headings = headingsOf(items);
  const shown = new Map<string, boolean>();
  const underWay = new Set<string>();

  const isShown = (key: string): boolean => {
    const known = shown.get(key);
    if (known !== undefined) return known;
    const item = byKey.get(key);
    if (!item || underWay.has(key)) return false;
    underWay.add(key);
    const heading = headings.get(key);
    const result =
      (heading === undefined || isShown(heading)) &&
      (item.shownIf === undefined || holds(item.shownIf)) &&
      (!isField(item) || item.parent === undefined || offered(item).length > 0);
    underWay.delete(key);
    shown.set(key, result);
    return result;
  };
  const offered = (field: FormField): readonly FieldOption[] => {
    const all = field.options ?? [];
    if (field.parent === undefined) return all;
    const above = [effective(field.parent) ?? []].flat();
    return all.filter(({ under }) => under === undefined || under.some((value) => above.includes(value)));
  };
  const effective = (key: string): Answer | undefined => {
    const item = byKey.get(key);
    if (!item || !isField(item) || !isShown(key)) return undefined;
    const answer = Object.hasOwn(given, key) ? given[key] : undefined;
    return answer === undefined ? undefined : kept(item, answer);
  };
  /** An answer without blanks and without what is not offered any more; undefined where nothing is left. */
  const kept = (field: FormField, answer: Answer): Answer | undefined => {
    const stays = (value: string): boolean =>
      value.trim() !== '' &&
      (!isChoice(field) || !knows(field, value.trim()) || offered(field).some((option) => option.value === value.trim()));
    if (typeof answer === 'string') return stays(answer) ? answer.trim() : undefined;
    const left = answer.filter(stays).map((value) => value.trim());
    return left.length > 0 ? left : undefined;
  };
  const holds = (condition: Condition): boolean => meets(condition, effective);

  const read = items.filter((item) => isShown(item.key));
  const fields = read.filter(isField);
  const answers = fields.flatMap((field) => {
    const answer = effective(field.key);
    return answer === undefined ? [] : [[field.key, answer] as const];
  });
  return {
    items: read,
    answers: Object.fromEntries(answers),
    needed: new Set(fields.filter(({ needed }) => needed === true || (typeof needed === 'object' && holds(needed))).map(({ key }) => key)),
    options: new Map(fields.filter(isChoice).map((field) => [field.key, offered(field)])),
  };
}

/** The heading that each item stands under. */
function headingsOf(items: readonly FormItem[]): Map<string, string> {
  const headings = new Map<string, string>();
  let heading: string | undefined;
  for (const item of items)
    if (item.kind === 'section') heading = item.key;
    else if (heading !== undefined) headings.set(item.key, heading);
  return headings;
}

/** Whether a condition holds. An empty `all` holds, an empty `any` does not. */
export function meets(condition: Condition, answerOf: (key: string) => Answer | undefined): boolean {
  if ('all' in condition) return condition.all.every((part) => meets(part, answerOf));
  if ('any' in condition) return condition.any.some((part) => meets(part, answerOf));
  const answer = answerOf(condition.field);
  const value = condition.value ?? '';
  switch (condition.is) {
    case 'answered':
      return answer !== undefined;
    case 'not_answered':
      return answer === undefined;
    case 'is':
      return answer !== undefined && isSame(answer, value);
    case 'is_not':
      return answer === undefined || !isSame(answer, value);
    case 'contains':
      return answer !== undefined && holdsIn(answer, value);
    case 'contains_not':
      return answer === undefined || !holdsIn(answer, value);
    case 'at_least':
      return answer !== undefined && isAtLeast(answer, value);
    case 'below':
      return answer !== undefined && isMeasured(answer, value) && !isAtLeast(answer, value);
  }
}

const plain = (text: string): string => text.trim().toLowerCase();
const isSame = (answer: Answer, value: string): boolean => typeof answer === 'string' && plain(answer) === plain(value);
const holdsIn = (answer: Answer, value: string): boolean =>
  typeof answer === 'string' ? plain(answer).includes(plain(value)) : answer.some((one) => plain(one) === plain(value));

/** Whether both are days, or both numbers. */
function isMeasured(answer: Answer, value: string): answer is string {
  if (typeof answer !== 'string' || answer === '' || value === '') return false;
  return parseDay(value) ? parseDay(answer) !== undefined : !Number.isNaN(Number(answer)) && !Number.isNaN(Number(value));
}

/** Days by the calendar, numbers by amount. */
const isAtLeast = (answer: Answer, value: string): boolean =>
  isMeasured(answer, value) && (parseDay(value) ? answer >= value : Number(answer) >= Number(value));

/** What each item waits for: the fields that say whether it is shown. */
export function waitsFor(items: readonly FormItem[]): Map<string, Set<string>> {
  const headings = headingsOf(items);
  return new Map(
    items.map((item) => {
      const keys = testsIn(item.shownIf).map(({ field }) => field);
      const heading = headings.get(item.key);
      return [item.key, new Set([...keys, ...(heading ? [heading] : []), ...(isField(item) && item.parent ? [item.parent] : [])])];
    }),
  );
}

/**
 * A loop of items of which each waits for the next, the last for the first.
 * @returns the keys in that order, undefined where there is none
 */
export function loopIn(items: readonly FormItem[]): string[] | undefined {
  const waits = waitsFor(items);
  const done = new Set<string>();
  const path: string[] = [];
  const visit = (key: string): string[] | undefined => {
    const at = path.indexOf(key);
    if (at >= 0) return path.slice(at);
    if (done.has(key) || !waits.has(key)) return undefined;
    path.push(key);
    for (const next of waits.get(key) ?? []) {
      const loop = visit(next);
      if (loop) return loop;
    }
    path.pop();
    done.add(key);
    return undefined;
  };
  for (const { key } of items) {
    const loop = visit(key);
    if (loop) return loop;
  }
  return undefined;
}

/** The answer that serves a purpose; undefined where the form has none or it was left empty. A fact `about` is also told by the title. */
export function answerServing(items: readonly FormItem[], answers: Answers, serves: NonNullable<FormField['serves']>): string | undefined {
  for (const item of items) {
    if (!isField(item) || item.serves !== serves || isListed(item)) continue;
    const answer = Object.hasOwn(answers, item.key) ? answers[item.key] : undefined;
    if (typeof answer === 'string' && answer.trim() !== '') return answer.trim();
  }
  return undefined;
}
