import { parseDay, type Day } from '../time/index.js';
import { checkAnswers } from './answers.js';
import { fieldsOf, isChoice, isField, testsIn, testsOf, type AnswerTest, type Condition, type FormField, type FormItem } from './form.js';
import { loopIn } from './reading.js';
import type { SortingRule } from './sorting.js';

/** The languages that a form’s own words can be in. */
export const FORM_LANGUAGES = ['en', 'de'] as const;
export type FormLanguage = (typeof FORM_LANGUAGES)[number];

/** What a form says and asks: what one of its versions holds. */
export interface FormContent {
  readonly title: string;
  readonly intro: string;
  readonly language: FormLanguage;
  readonly items: readonly FormItem[];
  /** the route that a request takes unless a rule or somebody says otherwise; it must be there to publish */
  readonly routeId: string | null;
  readonly rules: readonly SortingRule[];
  /** what is said once it is sent; empty for the built-in words */
  readonly thanks: string;
  /** the client's first and last day on which it can be sent */
  readonly opensOn: Day | null;
  readonly closesOn: Day | null;
  /** working days of the client between asking and the wish date; sooner is said, not refused */
  readonly noticeDays: number;
  /** working days of the agency within which an answer is promised; 0 promises nothing */
  readonly answerDays: number;
}

export type FormFault =
  | 'title_missing'
  | 'route_missing'
  | 'route_gone'
  | 'rule_gone'
  | 'nothing_asked'
  | 'too_many_items'
  | 'key_wrong'
  | 'key_twice'
  | 'label_missing'
  | 'options_missing'
  | 'option_twice'
  | 'parent_unknown'
  | 'under_unknown'
  | 'field_unknown'
  | 'test_unfit'
  | 'value_unfit'
  | 'too_deep'
  | 'limits_turned'
  | 'preset_unfit'
  | 'serves_twice'
  | 'serves_unfit'
  | 'loop'
  | 'closes_first'
  | 'rule_empty';

/** One thing to be mended before a form can be published. */
export interface FoundFault {
  readonly fault: FormFault;
  /** the key of the item; null where the form as a whole is meant */
  readonly key: string | null;
  /** the place of the rule, where one is meant */
  readonly rule?: number;
  /** for a loop: the keys, each waiting for the next and the last for the first */
  readonly chain?: readonly string[];
}

/** A form has no more items, a condition no more levels. */
export const ITEMS_LIMIT = 200;
export const DEPTH_LIMIT = 5;

/** All that keeps a form from being published. */
export function formFaults(content: FormContent): FoundFault[] {
  const { items, rules, opensOn, closesOn } = content;
  const whole = (fault: FormFault): FoundFault => ({ fault, key: null });
  const loop = loopIn(items);
  return [
    ...(content.title.trim() === '' ? [whole('title_missing')] : []),
    ...(content.routeId === null ? [whole('route_missing')] : []),
    ...(fieldsOf(items).length === 0 ? [whole('nothing_asked')] : []),
    ...(items.length > ITEMS_LIMIT ? [whole('too_many_items')] : []),
    ...(opensOn && closesOn && closesOn < opensOn ? [whole('closes_first')] : []),
    ...(loop ? [{ fault: 'loop' as const, key: loop[0] ?? null, chain: loop }] : []),
    ...items.flatMap((item, at) => itemFaults(item, items, at).map((fault) => ({ fault, key: item.key }))),
    ...rules.flatMap(({ when, takes }, rule) => [
      ...conditionFaults(when, items).map((fault) => ({ fault, key: null, rule })),
      ...(Object.keys(takes).length === 0 ? [{ fault: 'rule_empty' as const, key: null, rule }] : []),
    ]),
  ];
}

function itemFaults(item: FormItem, items: readonly FormItem[], at: number): FormFault[] {
  return [
    ...(/^[a-z][a-z0-9_]{0,39}$/.test(item.key) ? [] : ['key_wrong' as const]),
    ...(items.findIndex(({ key }) => key === item.key) < at ? ['key_twice' as const] : []),
    ...(item.label.trim() === '' ? ['label_missing' as const] : []),
    ...conditionFaults(item.shownIf, items),
    ...(isField(item) ? fieldFaults(item, items, at) : []),
  ];
}

function fieldFaults(field: FormField, items: readonly FormItem[], at: number): FormFault[] {
  const { kind, min, max, notBefore, notAfter, needed, serves } = field;
  const options = field.options ?? [];
  const isOwnChoice = kind === 'one_of' || kind === 'several_of';
  const earlier = items.slice(0, at).filter(isField);
  return [
    ...(typeof needed === 'object' ? conditionFaults(needed, items) : []),
    ...(isOwnChoice && options.length === 0 ? ['options_missing' as const] : []),
    ...(isOwnChoice && options.some(({ value }) => value.trim() === '') ? ['options_missing' as const] : []),
    ...(new Set(options.map(({ value }) => value)).size < options.length ? ['option_twice' as const] : []),
    ...parentFaults(field, items),
    ...(min !== undefined && max !== undefined && max < min ? ['limits_turned' as const] : []),
    ...(notBefore && notAfter && parseDay(notBefore) && parseDay(notAfter) && notAfter < notBefore ? ['limits_turned' as const] : []),
    ...(serves !== undefined && earlier.some((other) => other.serves === serves) ? ['serves_twice' as const] : []),
    ...((serves === 'title' && kind !== 'short') || (serves === 'wish_date' && kind !== 'day') ? ['serves_unfit' as const] : []),
    ...(field.preset !== undefined && !isFit(field, field.preset) ? ['preset_unfit' as const] : []),
  ];
}

function parentFaults({ parent, options = [] }: FormField, items: readonly FormItem[]): FormFault[] {
  if (parent === undefined) return [];
  const above = items.find(({ key }) => key === parent);
  if (!above || !isField(above) || (above.kind !== 'one_of' && above.kind !== 'several_of')) return ['parent_unknown'];
  const values = new Set(above.options?.map(({ value }) => value));
  return options.some(({ under }) => under?.some((value) => !values.has(value))) ? ['under_unknown'] : [];
}

function conditionFaults(condition: Condition | undefined, items: readonly FormItem[]): FormFault[] {
  const found = testsIn(condition).flatMap((test) => testFaults(test, items));
  return [...new Set(depthOf(condition) > DEPTH_LIMIT ? [...found, 'too_deep' as const] : found)];
}

function testFaults({ field: key, is, value }: AnswerTest, items: readonly FormItem[]): FormFault[] {
  const field = items.find((item) => item.key === key);
  if (!field || !isField(field)) return ['field_unknown'];
  if (!testsOf(field).includes(is)) return ['test_unfit'];
  if (is === 'answered' || is === 'not_answered') return [];
  if (value === undefined || value.trim() === '') return ['value_unfit'];
  if (field.kind === 'one_of' || field.kind === 'several_of')
    return field.options?.some((option) => option.value === value) ? [] : ['value_unfit'];
  if (field.kind === 'yes_no') return value === 'yes' || value === 'no' ? [] : ['value_unfit'];
  if (field.kind === 'day') return parseDay(value) ? [] : ['value_unfit'];
  return (field.kind === 'number' || field.kind === 'money') && Number.isNaN(Number(value)) ? ['value_unfit'] : [];
}

function depthOf(condition: Condition | undefined): number {
  if (condition === undefined) return 0;
  const parts = 'all' in condition ? condition.all : 'any' in condition ? condition.any : [];
  return 1 + Math.max(0, ...parts.map(depthOf));
}

/** Whether a field could be sent with that answer, alone on a form; what it chooses from elsewhere is known only when it is opened. */
function isFit(field: FormField, answer: FormField['preset'] & {}): boolean {
  const { shownIf: _, parent: __, serves: ___, ...alone } = field;
  if (isChoice(field) && field.kind !== 'one_of' && field.kind !== 'several_of') return true;
  const { problems } = checkAnswers([{ ...alone, needed: false }], { [field.key]: answer }, { todayOn: '1900-01-01' as Day });
  return problems[field.key] === undefined || problems[field.key] === 'too_early';
}
