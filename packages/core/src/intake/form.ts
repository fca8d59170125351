import type { Day } from '../time/index.js';

/** What a field asks for. */
export const FIELD_KINDS = [
  'short',
  'long',
  'number',
  'money',
  'day',
  'span',
  'one_of',
  'several_of',
  'yes_no',
  'link',
  'email',
  'phone',
  'channel',
  'format',
  'pillar',
  'files',
] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

/** What a file can be, as a form says what it takes. */
export const FILE_KINDS = ['picture', 'clip', 'sound', 'paper'] as const;
export type FileKind = (typeof FILE_KINDS)[number];

/** What an answer tells the makers, whatever words a form asks in. */
export const BRIEF_FACTS = ['about', 'aim', 'audience', 'purpose', 'page', 'offer', 'refers', 'material'] as const;
export type BriefFact = (typeof BRIEF_FACTS)[number];

/** What an answer also serves as: the request's title, its wish date, or a fact of the brief. */
export type Serves = 'title' | 'wish_date' | BriefFact;

/**
 * The tests of a condition. `not_answered`, `is_not` and `contains_not` are true exactly where their opposite is not, so also where nothing is
 * answered; `at_least` and `below` both need an answer.
 */
export const TESTS = ['answered', 'not_answered', 'is', 'is_not', 'contains', 'contains_not', 'at_least', 'below'] as const;
export type TestName = (typeof TESTS)[number];

/** One question about the answer of another field. */
export interface AnswerTest {
  readonly field: string;
  readonly is: TestName;
  /** what the answer is held against; days as ISO 8601, numbers in decimals. None for `answered` and `not_answered` */
  readonly value?: string;
}

/** Tests joined by and (`all`) or or (`any`), to any depth. */
export type Condition = AnswerTest | { readonly all: readonly Condition[] } | { readonly any: readonly Condition[] };

/** One thing to choose. */
export interface FieldOption {
  /** what the answer holds: for channel, format and pillar an id */
  readonly value: string;
  /** what is read, where it differs from the value */
  readonly label?: string;
  /** the parent's choices under which this one is offered; without them it always is */
  readonly under?: readonly string[];
}

/** One question. */
export interface FormField {
  readonly key: string;
  readonly kind: FieldKind;
  readonly label: string;
  readonly help?: string;
  /** always needed, or where a condition holds */
  readonly needed?: boolean | Condition;
  readonly shownIf?: Condition;
  /** for `one_of` and `several_of`; for channel, format and pillar filled in from the client when the form is opened */
  readonly options?: readonly FieldOption[];
  /** the key of the choice that this field's choices depend on */
  readonly parent?: string;
  readonly serves?: Serves;
  /** hidden from freelance creators; when not said, by kind: see `isAgencyOnly` */
  readonly agencyOnly?: boolean;
  /** what the field holds before anybody answers */
  readonly preset?: Answer;
  /** the least and the most: characters of a text, amount of a number, how many of a choice */
  readonly min?: number;
  readonly max?: number;
  /** for a number: no decimals */
  readonly whole?: boolean;
  /** what a number counts, or a currency */
  readonly unit?: string;
  /** for a day or a span: no day before, none after. `today` is the client's */
  readonly notBefore?: Day | 'today';
  readonly notAfter?: Day | 'today';
  /** for channel: more than one may be chosen */
  readonly several?: boolean;
  /** for files: what kinds, and how large one may be in megabytes (10⁶ bytes) */
  readonly fileKinds?: readonly FileKind[];
  readonly megabytes?: number;
}

/** A heading; what follows it, up to the next one, is shown with it. */
export interface FormSection {
  readonly key: string;
  readonly kind: 'section';
  readonly label: string;
  readonly help?: string;
  readonly shownIf?: Condition;
}

/** Words that ask nothing. */
export interface FormText {
  readonly key: string;
  readonly kind: 'text';
  readonly label: string;
  readonly shownIf?: Condition;
}

export type FormItem = FormField | FormSection | FormText;

/** Texts, numbers, days, links: a text. Spans: first and last day. Several choices: their values. Files: their ids. */
export type Answer = string | readonly string[];
export type Answers = Readonly<Record<string, Answer>>;

export const isField = (item: FormItem): item is FormField => item.kind !== 'section' && item.kind !== 'text';
export const fieldsOf = (items: readonly FormItem[]): FormField[] => items.filter(isField);

/** Whether a field is kept from freelance creators: as the form says, else money, e-mail and telephone are. */
export const isAgencyOnly = ({ kind, agencyOnly }: FormField): boolean =>
  agencyOnly ?? (kind === 'money' || kind === 'email' || kind === 'phone');

/** Whether an answer is a list: of choices, of files, or of the two days of a span. */
export const isListed = ({ kind, several }: FormField): boolean =>
  kind === 'several_of' || kind === 'files' || kind === 'span' || (kind === 'channel' && several === true);

/** Whether a field offers things to choose. */
export const isChoice = ({ kind }: FormField): boolean =>
  kind === 'one_of' || kind === 'several_of' || kind === 'channel' || kind === 'format' || kind === 'pillar';

/** The tests that make sense of an answer of that kind. */
export function testsOf(field: FormField): readonly TestName[] {
  switch (field.kind) {
    case 'files':
    case 'span':
      return ['answered', 'not_answered'];
    case 'number':
    case 'money':
    case 'day':
      return ['answered', 'not_answered', 'is', 'is_not', 'at_least', 'below'];
    case 'several_of':
      return ['answered', 'not_answered', 'contains', 'contains_not'];
    case 'channel':
      return ['answered', 'not_answered', ...(field.several ? (['contains', 'contains_not'] as const) : (['is', 'is_not'] as const))];
    case 'one_of':
    case 'yes_no':
    case 'format':
    case 'pillar':
      return ['answered', 'not_answered', 'is', 'is_not'];
    default:
      return ['answered', 'not_answered', 'is', 'is_not', 'contains', 'contains_not'];
  }
}

/** The tests within a condition, in the order they are read. */
export function testsIn(condition: Condition | undefined): AnswerTest[] {
  if (condition === undefined) return [];
  if ('all' in condition) return condition.all.flatMap(testsIn);
  if ('any' in condition) return condition.any.flatMap(testsIn);
  return [condition];
}

/** How a request stands: to be decided, waiting for the requester's answer, or decided. */
export const REQUEST_STATES = ['new', 'asked_back', 'accepted', 'declined', 'idea', 'merged', 'withdrawn'] as const;
export type RequestState = (typeof REQUEST_STATES)[number];

/** How a request came. */
export const REQUEST_WAYS = ['form', 'mail', 'telephone', 'dates', 'table'] as const;
export type RequestWay = (typeof REQUEST_WAYS)[number];

/** Whether a request can still be decided. */
export const isOpenRequest = (state: RequestState): boolean => state === 'new' || state === 'asked_back';
