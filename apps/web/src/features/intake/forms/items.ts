import { isField, testsIn, type Condition, type FieldKind, type FormContent, type FormItem, type SortingRule } from '@zesting/core';

/** A short name that no item has: made of the words, or of the kind. */
export function freeKey(words: string, items: readonly FormItem[]): string {
  const plain = words
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^[^a-z]+|_+$/g, '')
    .slice(0, 30);
  const base = plain === '' ? 'question' : plain;
  const taken = new Set(items.map(({ key }) => key));
  if (!taken.has(base)) return base;
  for (let number = 2; ; number += 1) if (!taken.has(`${base}_${number}`)) return `${base}_${number}`;
}

const FIRST_WORDS: Record<FieldKind | 'section' | 'text', string> = {
  short: 'A question',
  long: 'A question for a longer answer',
  number: 'How many?',
  money: 'What may it cost?',
  day: 'When?',
  span: 'From when to when?',
  one_of: 'Which of these?',
  several_of: 'Which of these?',
  yes_no: 'Yes or no?',
  link: 'A page',
  email: 'An e-mail address',
  phone: 'A telephone number',
  channel: 'Where should it appear?',
  format: 'What should it be?',
  pillar: 'Which subject does it belong to?',
  files: 'Pictures or papers that help',
  section: 'A section',
  text: 'Words that ask nothing',
};

/** A new item of a kind, with words to begin with. */
export function newItem(kind: FieldKind | 'section' | 'text', items: readonly FormItem[]): FormItem {
  const label = FIRST_WORDS[kind];
  const shared = { key: freeKey(kind === 'section' || kind === 'text' ? kind : label, items), label };
  if (kind === 'section' || kind === 'text') return { ...shared, kind };
  return { ...shared, kind, ...(kind === 'one_of' || kind === 'several_of' ? { options: [{ value: 'First' }, { value: 'Second' }] } : {}) };
}

/** An item of another form, under a short name that is free here, without what only its own form knows. */
export function takenOver(item: FormItem, items: readonly FormItem[]): FormItem {
  const { shownIf: _, ...rest } = item;
  const key = freeKey(item.key, items);
  if (!isField(rest as FormItem)) return { ...(rest as FormItem), key };
  const { parent: __, needed, serves, options, ...field } = rest as FormItem & { kind: FieldKind };
  const isServed = items.some((other) => isField(other) && other.serves === serves);
  return {
    ...field,
    key,
    ...(needed === true ? { needed } : {}),
    ...(serves && !isServed ? { serves } : {}),
    ...(options ? { options: options.map(({ under: ___, ...option }) => option) } : {}),
  } as FormItem;
}

export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const next = [...list];
  const [one] = next.splice(from, 1);
  if (one !== undefined) next.splice(Math.max(0, Math.min(to, next.length)), 0, one);
  return next;
}

/** What asks about an item: other items by their conditions, and rules. */
export function dependsOn(
  key: string,
  { items, rules }: Pick<FormContent, 'items' | 'rules'>,
): { items: FormItem[]; rules: SortingRule[] } {
  const asks = (condition: Condition | undefined) => testsIn(condition).some((test) => test.field === key);
  return {
    items: items.filter(
      (item) =>
        item.key !== key &&
        (asks(item.shownIf) || (isField(item) && (item.parent === key || (typeof item.needed === 'object' && asks(item.needed))))),
    ),
    rules: rules.filter(({ when }) => asks(when)),
  };
}
