import { formFaults, FIELD_KINDS, type FormContent, type FormItem } from '@zesting/core';
import { dependsOn, freeKey, moved, newItem, takenOver } from './items';

const items: FormItem[] = [
  { key: 'title', kind: 'short', label: 'Title', serves: 'title' },
  { key: 'kind', kind: 'one_of', label: 'Kind', options: [{ value: 'a' }] },
  {
    key: 'more',
    kind: 'one_of',
    label: 'More',
    parent: 'kind',
    options: [{ value: 'x', under: ['a'] }],
    needed: { field: 'title', is: 'answered' },
  },
  { key: 'end', kind: 'section', label: 'End', shownIf: { any: [{ field: 'kind', is: 'is', value: 'a' }] } },
];

describe('items of a form', () => {
  it('get short names that are free and allowed', () => {
    expect([freeKey('Für wen ist es?', items), freeKey('Title', items), freeKey('123', items), freeKey('!', items)]).toEqual([
      'fur_wen_ist_es',
      'title_2',
      'question',
      'question',
    ]);
    expect(freeKey('title', [...items, { key: 'title_2', kind: 'text', label: '' }])).toBe('title_3');
  });

  it('are made of every kind without a fault', () => {
    let made: FormItem[] = [];
    for (const kind of [...FIELD_KINDS, 'section', 'text'] as const) made = [...made, newItem(kind, made)];
    const content: FormContent = {
      title: 'T',
      intro: '',
      language: 'en',
      items: made,
      routeId: 'r',
      rules: [],
      thanks: '',
      opensOn: null,
      closesOn: null,
      noticeDays: 0,
      answerDays: 0,
    };
    expect(formFaults(content)).toEqual([]);
  });

  it('are taken over without what only their own form knows', () => {
    const [title, , more] = items as [FormItem, FormItem, FormItem];
    expect(takenOver(more, [])).toEqual({ key: 'more', kind: 'one_of', label: 'More', options: [{ value: 'x' }] });
    expect(takenOver(title, items)).toEqual({ key: 'title_2', kind: 'short', label: 'Title' });
    expect(takenOver(title, [])).toEqual(title);
    expect(takenOver({ key: 's', kind: 'section', label: 'S', shownIf: { all: [] } }, [])).toEqual({
      key: 's',
      kind: 'section',
      label: 'S',
    });
  });

  it('say who asks about them', () => {
    const of = (key: string) => {
      const found = dependsOn(key, { items, rules: [{ when: { field: 'kind', is: 'answered' }, takes: {} }] });
      return [...found.items.map((item) => item.key), ...found.rules.map(() => 'rule')];
    };
    expect([of('kind'), of('title'), of('end')]).toEqual([['more', 'end', 'rule'], ['more'], []]);
  });

  it('move within the list', () => {
    expect([moved([1, 2, 3], 0, 2), moved([1, 2, 3], 2, 0), moved([1, 2], 0, 9), moved([1, 2], 5, 0)]).toEqual([
      [2, 3, 1],
      [3, 1, 2],
      [2, 1],
      [1, 2],
    ]);
  });
});
