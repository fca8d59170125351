import { getDay } from '../time/index.js';
import {
  checkAnswers,
  conditionWords,
  factsMissing,
  factsNotAsked,
  formFaults,
  loopIn,
  readForm,
  ruleWords,
  sortByRules,
} from './index.js';
import type { Condition, FormContent, FormItem, SortingRule } from './index.js';

const is = (field: string, value: string): Condition => ({ field, is: 'is', value });
/** A form with two levels: the kind decides about the clip's part, its length about the plan. */
const items: FormItem[] = [
  { key: 'title', kind: 'short', label: 'What is it about?', needed: true, serves: 'title' },
  { key: 'kind', kind: 'one_of', label: 'What kind', options: [{ value: 'still' }, { value: 'short clip' }, { value: 'event' }] },
  {
    key: 'shape',
    kind: 'one_of',
    label: 'Shape',
    parent: 'kind',
    options: [
      { value: 'square', under: ['still'] },
      { value: 'upright', under: ['still', 'short clip'] },
      { value: 'wide', under: ['short clip'] },
    ],
  },
  { key: 'clip', kind: 'section', label: 'The clip', shownIf: is('kind', 'short clip') },
  { key: 'seconds', kind: 'number', label: 'Seconds', needed: true },
  { key: 'plan', kind: 'long', label: 'Plan', shownIf: { field: 'seconds', is: 'at_least', value: '60' }, needed: is('audience', 'trade') },
  { key: 'all', kind: 'section', label: 'And' },
  { key: 'audience', kind: 'short', label: 'Audience', serves: 'audience' },
];
const shown = (answers: Record<string, string | string[]>) =>
  readForm(items, answers)
    .items.map(({ key }) => key)
    .join(' ');

describe('a form as it stands', () => {
  it('shows what its conditions allow, over two levels and by section', () => {
    expect(shown({})).toBe('title kind all audience');
    expect(shown({ kind: 'still' })).toBe('title kind shape all audience');
    expect(shown({ kind: 'short clip', seconds: '59.9' })).toBe('title kind shape clip seconds all audience');
    expect(shown({ kind: 'short clip', seconds: '60' })).toBe('title kind shape clip seconds plan all audience');
    expect(shown({ kind: 'still', seconds: '90' })).toBe('title kind shape all audience'); // what is hidden counts as not answered
  });

  it('hides a choice that has nothing to choose, and drops what is not offered any more', () => {
    expect(shown({ kind: 'event' })).toBe('title kind all audience');
    expect(readForm(items, { kind: 'short clip', shape: 'square' }).answers).toEqual({ kind: 'short clip' });
    expect(
      readForm(items, { kind: 'short clip' })
        .options.get('shape')
        ?.map(({ value }) => value),
    ).toEqual(['upright', 'wide']);
    expect(checkAnswers(items, { title: 'x', kind: 'still', shape: 'round' }, { todayOn: getDay('2027-03-01') }).problems).toEqual({
      shape: 'not_an_option',
    });
  });

  it('needs what a condition says', () => {
    const needed = (audience: string) => [...readForm(items, { kind: 'short clip', seconds: '90', audience }).needed].join(' ');
    expect([needed('the trade'), needed('Trade ')]).toEqual(['title seconds', 'title seconds plan']);
  });

  it.each<[Condition, string | undefined, boolean]>([
    [{ field: 'f', is: 'answered' }, undefined, false],
    [{ field: 'f', is: 'not_answered' }, undefined, true],
    [{ field: 'f', is: 'is', value: 'Yes' }, 'yes', true],
    [{ field: 'f', is: 'is_not', value: 'yes' }, undefined, true],
    [{ field: 'f', is: 'contains', value: 'TRADE' }, 'for the trade', true],
    [{ field: 'f', is: 'contains_not', value: 'trade' }, 'for all', true],
    [{ field: 'f', is: 'at_least', value: '10' }, '9', false],
    [{ field: 'f', is: 'at_least', value: '9' }, '10', true],
    [{ field: 'f', is: 'below', value: '10' }, '9', true],
    [{ field: 'f', is: 'below', value: '10' }, undefined, false],
    [{ field: 'f', is: 'below', value: '10' }, 'many', false],
    [{ field: 'f', is: 'at_least', value: '2027-03-01' }, '2027-03-01', true],
    [{ field: 'f', is: 'below', value: '2027-03-01' }, '2027-02-28', true],
    [{ all: [] }, undefined, true],
    [{ any: [] }, undefined, false],
    [{ all: [{ field: 'f', is: 'answered' }, { any: [is('f', 'a'), is('f', 'b')] }] }, 'b', true],
    [{ all: [{ field: 'f', is: 'answered' }, { any: [is('f', 'a'), is('f', 'b')] }] }, 'c', false],
  ])('%j with %s: %s', (shownIf, answer, expected) => {
    const form: FormItem[] = [
      { key: 'f', kind: 'short', label: 'F' },
      { key: 'then', kind: 'text', label: 'Then', shownIf },
    ];
    expect(readForm(form, answer === undefined ? {} : { f: answer }).items.some(({ key }) => key === 'then')).toBe(expected);
  });

  it('finds a list’s member, not a part of it', () => {
    const form: FormItem[] = [
      { key: 'f', kind: 'several_of', label: 'F', options: [{ value: 'trade fair' }, { value: 'shop' }] },
      { key: 'then', kind: 'text', label: 'Then', shownIf: { field: 'f', is: 'contains', value: 'trade' } },
    ];
    expect(readForm(form, { f: ['trade fair'] }).items).toHaveLength(1);
  });
});

describe('loops', () => {
  const waits = (key: string, ...fields: string[]): FormItem => ({
    key,
    kind: 'short',
    label: key,
    ...(fields.length > 0 ? { shownIf: { any: fields.map((field) => ({ field, is: 'answered' as const })) } } : {}),
  });

  it('are named as a chain', () => {
    expect(loopIn([waits('a', 'b'), waits('b', 'c', 'x'), waits('c', 'b'), waits('x')])).toEqual(['b', 'c']);
    expect(loopIn([waits('a', 'a')])).toEqual(['a']);
    expect(loopIn([waits('a'), waits('b', 'a'), waits('c', 'a', 'b', 'gone')])).toBeUndefined();
  });

  it('go through sections and parents', () => {
    const section: FormItem = { key: 's', kind: 'section', label: 's', shownIf: { field: 'a', is: 'answered' } };
    expect(loopIn([section, waits('a')])).toEqual(['s', 'a']);
    expect(
      loopIn([
        { key: 'p', kind: 'one_of', label: 'p', parent: 'q', options: [] },
        { key: 'q', kind: 'one_of', label: 'q', parent: 'p', options: [] },
      ]),
    ).toEqual(['p', 'q']);
  });

  it('leave a form readable', () => {
    expect(readForm([waits('a', 'b'), waits('b', 'a'), waits('x')], { a: '1', b: '1' }).items.map(({ key }) => key)).toEqual(['x']);
  });
});

describe('facts of a brief', () => {
  it('are asked for or not, answered or not', () => {
    expect(factsNotAsked(['page', 'audience', 'about'], items)).toEqual(['page']);
    expect(factsMissing(['about', 'audience'], items, { title: 'x', audience: ' ' })).toEqual(['audience']);
    expect(factsMissing(['about', 'audience'], items, { title: 'x', audience: 'all' })).toEqual([]);
    expect(
      factsMissing(
        ['aim'],
        [
          { key: 'h', kind: 'section', label: 'h', shownIf: is('no', 'x') },
          { key: 'aim', kind: 'short', label: 'Aim', serves: 'aim' },
        ],
        { aim: 'hidden' },
      ),
    ).toEqual(['aim']);
  });
});

describe('sorting', () => {
  const rules: SortingRule[] = [
    {
      when: { all: [is('kind', 'short clip'), { field: 'audience', is: 'contains', value: 'trade' }] },
      takes: { routeId: 'clip', ownerId: 'lead_person' },
    },
    { when: { any: [is('kind', 'still'), is('kind', 'event')] }, takes: { routeId: 'still', pillarId: 'news', channelIds: ['blog'] } },
  ];
  const names = { route: () => 'Short clip', pillar: () => 'News', channel: () => 'Blog', person: () => 'Dana' };
  const say = (words: readonly { text: string; isName?: true }[]) =>
    words.map(({ text, isName }) => (isName ? `*${text}*` : text)).join('');

  it('goes by the first rule that fits', () => {
    const sorted = (answers: Record<string, string>) => sortByRules(rules, items, answers, () => undefined);
    expect(sorted({ kind: 'short clip', audience: 'The Trade' })).toEqual({ rule: 0, takes: rules[0]?.takes });
    expect(sorted({ kind: 'event' }).rule).toBe(1);
    expect(sorted({ kind: 'short clip', audience: 'all' })).toEqual({ rule: null, takes: {} });
    expect(sortByRules([{ takes: { routeId: 'any' } }], items, {}, () => undefined)).toEqual({ rule: 0, takes: { routeId: 'any' } });
  });

  it('takes what was answered about channel, format and pillar, below what the rule says', () => {
    const asked: FormItem[] = [
      { key: 'where', kind: 'channel', label: 'Where', several: true, options: [{ value: 'blog' }, { value: 'feed' }] },
      { key: 'what', kind: 'format', label: 'What', options: [{ value: 'f-clip' }] },
      { key: 'of', kind: 'pillar', label: 'Of', options: [{ value: 'news' }] },
    ];
    const answers = { where: ['blog', 'feed'], what: 'f-clip', of: 'news' };
    const routeOf = (format: string) => (format === 'f-clip' ? 'r-clip' : undefined);
    expect(sortByRules([], asked, answers, routeOf).takes).toEqual({ channelIds: ['blog', 'feed'], routeId: 'r-clip', pillarId: 'news' });
    expect(sortByRules([{ takes: { routeId: 'other' } }], asked, answers, routeOf).takes.routeId).toBe('other');
  });

  it('reads itself', () => {
    expect(rules.map((rule) => say(ruleWords(rule, items, names)))).toEqual([
      'When *What kind* is *short clip* and *Audience* contains *trade*, it takes the route *Short clip* and goes to the lead person.',
      'When *What kind* is *still* or *What kind* is *event*, it takes the route *Short clip*, counts to *News* and is meant for *Blog*.',
    ]);
    expect(say(ruleWords({ takes: { ownerId: 'd' } }, items, names))).toBe('Always it goes to *Dana*.');
    expect(
      say(conditionWords({ all: [is('kind', 'still'), { any: [is('title', 'a'), { field: 'gone', is: 'not_answered' }] }] }, items)),
    ).toBe('*What kind* is *still* and (*What is it about?* is *a* or *gone* is not answered)');
    expect(say(ruleWords({ when: { any: [] }, takes: {} }, items, names))).toBe('When never, nothing is set.');
  });
});

describe('what keeps a form from being published', () => {
  const content: FormContent = {
    title: 'Ask',
    intro: '',
    language: 'en',
    items,
    routeId: 'route',
    rules: [],
    thanks: '',
    opensOn: null,
    closesOn: null,
    noticeDays: 0,
    answerDays: 2,
  };
  const faultsOf = (changes: Partial<FormContent>) =>
    formFaults({ ...content, ...changes }).map(({ fault, key, rule }) => [fault, key ?? rule ?? null].join(' '));
  const withItem = (item: FormItem) => faultsOf({ items: [...items, item] });
  const short = { kind: 'short', label: 'L' } as const;

  it('is nothing where all is well', () => {
    expect(faultsOf({})).toEqual([]);
  });

  it('is said for the form, its rules and its dates', () => {
    expect(faultsOf({ title: ' ', routeId: null, items: [], opensOn: getDay('2027-03-02'), closesOn: getDay('2027-03-01') })).toEqual([
      'title_missing ',
      'route_missing ',
      'nothing_asked ',
      'closes_first ',
    ]);
    expect(faultsOf({ rules: [{ when: is('gone', 'x'), takes: {} }] })).toEqual(['field_unknown 0', 'rule_empty 0']);
    expect(faultsOf({ items: Array.from({ length: 201 }, (_, at): FormItem => ({ ...short, key: `k${at}` })) })).toEqual([
      'too_many_items ',
    ]);
  });

  it.each<[string, FormItem]>([
    ['key_wrong Q', { ...short, key: 'Q' }],
    ['key_twice title', { ...short, key: 'title' }],
    ['label_missing q', { ...short, key: 'q', label: ' ' }],
    ['options_missing q', { ...short, key: 'q', kind: 'one_of' }],
    ['options_missing q', { ...short, key: 'q', kind: 'one_of', options: [{ value: '' }] }],
    ['option_twice q', { ...short, key: 'q', kind: 'several_of', options: [{ value: 'a' }, { value: 'a' }] }],
    ['parent_unknown q', { ...short, key: 'q', kind: 'one_of', options: [{ value: 'a' }], parent: 'title' }],
    ['under_unknown q', { ...short, key: 'q', kind: 'one_of', options: [{ value: 'a', under: ['song'] }], parent: 'kind' }],
    ['field_unknown q', { ...short, key: 'q', shownIf: { field: 'clip', is: 'answered' } }],
    ['test_unfit q', { ...short, key: 'q', shownIf: { field: 'kind', is: 'contains', value: 'still' } }],
    ['value_unfit q', { ...short, key: 'q', shownIf: is('kind', 'song') }],
    ['value_unfit q', { ...short, key: 'q', needed: { field: 'seconds', is: 'below', value: 'few' } }],
    ['value_unfit q', { ...short, key: 'q', shownIf: { field: 'title', is: 'contains', value: ' ' } }],
    ['too_deep q', { ...short, key: 'q', shownIf: { all: [{ any: [{ all: [{ any: [{ all: [is('kind', 'still')] }] }] }] }] } }],
    ['limits_turned q', { ...short, key: 'q', min: 5, max: 4 }],
    ['limits_turned q', { ...short, key: 'q', kind: 'day', notBefore: getDay('2027-03-02'), notAfter: getDay('2027-03-01') }],
    ['preset_unfit q', { ...short, key: 'q', max: 3, preset: 'long' }],
    ['preset_unfit q', { ...short, key: 'q', kind: 'one_of', options: [{ value: 'a' }], preset: 'b' }],
    ['serves_twice q', { ...short, key: 'q', serves: 'title' }],
    ['serves_unfit q', { ...short, key: 'q', serves: 'wish_date' }],
  ])('is %s', (fault, item) => {
    expect(withItem(item)).toEqual([fault]);
  });

  it('names a loop’s chain', () => {
    const looped: FormItem[] = [
      { ...short, key: 'a', shownIf: { field: 'b', is: 'answered' } },
      { ...short, key: 'b', shownIf: { field: 'a', is: 'answered' } },
    ];
    expect(formFaults({ ...content, items: looped })).toEqual([{ fault: 'loop', key: 'a', chain: ['a', 'b'] }]);
  });
});
