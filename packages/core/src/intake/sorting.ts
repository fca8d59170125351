import { isField, type Answer, type Answers, type Condition, type FormItem, type TestName } from './form.js';
import { meets, readForm } from './reading.js';

/** What is set for a request that a rule fits. What it leaves open is as the form says. */
export interface Sorted {
  readonly routeId?: string;
  readonly pillarId?: string;
  readonly channelIds?: readonly string[];
  /** a person of the agency, or `lead_person`: the client's */
  readonly ownerId?: string;
}

/** Answers → what is set. Without a condition it fits always. */
export interface SortingRule {
  readonly when?: Condition;
  readonly takes: Sorted;
}

/** The first rule that fits, and what is set by it. */
export interface SortedBy {
  /** its place in the list; null where none fits */
  readonly rule: number | null;
  readonly takes: Sorted;
}

/**
 * Sorts a request by its answers: what was answered about channel and pillar, over it what the first rule that fits says.
 * @param routeOf the route that a format usually takes
 */
export function sortByRules(
  rules: readonly SortingRule[],
  items: readonly FormItem[],
  given: Answers,
  routeOf: (formatId: string) => string | undefined,
): SortedBy {
  const { answers, items: shown } = readForm(items, given);
  const answerOf = (key: string): Answer | undefined => (Object.hasOwn(answers, key) ? answers[key] : undefined);
  const at = rules.findIndex(({ when }) => when === undefined || meets(when, answerOf));
  const asked: { -readonly [Key in keyof Sorted]: Sorted[Key] } = {};
  for (const field of shown.filter(isField)) {
    const answer = answerOf(field.key);
    if (answer === undefined) continue;
    if (field.kind === 'channel') asked.channelIds = [...new Set([...(asked.channelIds ?? []), ...[answer].flat()])];
    if (typeof answer !== 'string') continue;
    if (field.kind === 'pillar') asked.pillarId ??= answer;
    const routeId = field.kind === 'format' ? routeOf(answer) : undefined;
    if (routeId !== undefined) asked.routeId ??= routeId;
  }
  return { rule: at < 0 ? null : at, takes: { ...asked, ...rules[at]?.takes } };
}

/** A stretch of a sentence; `name` marks what somebody named themselves. */
export interface Words {
  readonly text: string;
  readonly isName?: true;
}

const TEST_WORDS: Record<TestName, string> = {
  answered: 'is answered',
  not_answered: 'is not answered',
  is: 'is',
  is_not: 'is not',
  contains: 'contains',
  contains_not: 'does not contain',
  at_least: 'is at least',
  below: 'is below',
};

/** Names for ids in rules. */
export interface RuleNames {
  readonly route: (id: string) => string;
  readonly pillar: (id: string) => string;
  readonly channel: (id: string) => string;
  readonly person: (id: string) => string;
}

/** A condition as it reads: “kind is clip and audience contains trade”. Parts of another kind than the whole stand in brackets. */
export function conditionWords(condition: Condition, items: readonly FormItem[]): Words[] {
  if ('all' in condition || 'any' in condition) {
    const [parts, joint] = 'all' in condition ? [condition.all, ' and '] : [condition.any, ' or '];
    if (parts.length === 0) return [{ text: 'all' in condition ? 'always' : 'never' }];
    return parts.flatMap((part, at) => {
      const words = conditionWords(part, items);
      const isMixed = ('all' in part && part.all.length > 1) || ('any' in part && part.any.length > 1);
      return [...(at > 0 ? [{ text: joint }] : []), ...(isMixed ? [{ text: '(' }, ...words, { text: ')' }] : words)];
    });
  }
  const field = items.find(({ key }) => key === condition.field);
  const option = field && isField(field) ? field.options?.find(({ value }) => value === condition.value) : undefined;
  return [
    { text: field?.label ?? condition.field, isName: true },
    { text: ` ${TEST_WORDS[condition.is]}` },
    ...(condition.value === undefined ? [] : [{ text: ' ' }, { text: option?.label ?? condition.value, isName: true } as const]),
  ];
}

/** A rule as a sentence: “When *kind* is *clip*, it takes the route *Short clip* and goes to *the lead person*.” */
export function ruleWords({ when, takes }: SortingRule, items: readonly FormItem[], names: RuleNames): Words[] {
  const name = (text: string): Words => ({ text, isName: true });
  const done: Words[][] = [
    ...(takes.routeId ? [[{ text: 'it takes the route ' }, name(names.route(takes.routeId))]] : []),
    ...(takes.pillarId ? [[{ text: 'it counts to ' }, name(names.pillar(takes.pillarId))]] : []),
    ...(takes.channelIds?.length ? [[{ text: 'it is meant for ' }, name(takes.channelIds.map(names.channel).join(', '))]] : []),
    ...(takes.ownerId
      ? [[{ text: 'it goes to ' }, takes.ownerId === 'lead_person' ? { text: 'the lead person' } : name(names.person(takes.ownerId))]]
      : []),
  ];
  const joined = done.flatMap((part, at) => {
    const [first, ...rest] = part;
    if (at === 0 || !first) return part;
    return [{ text: at === done.length - 1 ? ' and ' : ', ' }, { ...first, text: first.text.replace(/^it /, '') }, ...rest];
  });
  const start = when === undefined ? [{ text: 'Always ' }] : [{ text: 'When ' }, ...conditionWords(when, items), { text: ', ' }];
  return [...start, ...(joined.length > 0 ? joined : [{ text: 'nothing is set' }]), { text: '.' }];
}
