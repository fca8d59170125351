import fc from 'fast-check';
import { getDay } from '../time/index.js';
import {
  checkAnswers,
  FIELD_KINDS,
  formFaults,
  isField,
  isListed,
  loopIn,
  readForm,
  testsOf,
  type Answers,
  type Condition,
  type FormField,
  type FormItem,
} from './index.js';

const todayOn = getDay('2027-03-01');
const OPTIONS = ['still', 'clip', 'event'];
const RUNS = Number(process.env['ZESTING_LONG'] ? 100_000 : 10_000);

/** A test on one of the fields before, fit for its kind. */
const anyTest = (fields: readonly FormField[]): fc.Arbitrary<Condition> =>
  fc.constantFrom(...fields).chain((field) =>
    fc.record({
      field: fc.constant(field.key),
      is: fc.constantFrom(...testsOf(field)),
      value: fc.constantFrom('still', 'clip', 'yes', '3', '2027-03-02', 'a'),
    }),
  );
const anyCondition = (fields: readonly FormField[]): fc.Arbitrary<Condition> => {
  const test = anyTest(fields);
  const list = fc.array(test, { maxLength: 3 });
  return fc.oneof(test, fc.record({ all: list }), fc.record({ any: list }), fc.record({ any: fc.tuple(test, fc.record({ all: list })) }));
};

const anyItem = (key: string, before: readonly FormField[]): fc.Arbitrary<FormItem> => {
  const condition = before.length > 0 ? anyCondition(before) : fc.constant(undefined);
  const parents = before.filter(({ kind }) => kind === 'one_of' || kind === 'several_of');
  return fc
    .record({
      kind: fc.constantFrom(...FIELD_KINDS, 'section' as const, 'text' as const),
      shownIf: fc.option(condition, { nil: undefined }),
      needed: fc.oneof(fc.boolean(), condition),
      parent: fc.option(parents.length > 0 ? fc.constantFrom(...parents.map((field) => field.key)) : fc.constant(undefined), {
        nil: undefined,
      }),
      max: fc.option(fc.nat(5), { nil: undefined }),
      under: fc.subarray(OPTIONS),
    })
    .map(({ kind, shownIf, needed, parent, max, under }): FormItem => {
      const shared = { key, label: key, ...(shownIf ? { shownIf } : {}) };
      if (kind === 'section' || kind === 'text') return { ...shared, kind };
      const isChoice = ['one_of', 'several_of', 'channel', 'format', 'pillar'].includes(kind);
      const options = OPTIONS.map((value, at) => ({ value, ...(parent && at > 0 ? { under } : {}) }));
      return {
        ...shared,
        kind,
        ...(needed === undefined ? {} : { needed }),
        ...(isChoice ? { options } : {}),
        ...(parent && (kind === 'one_of' || kind === 'several_of') ? { parent } : {}),
        ...(max === undefined ? {} : { max }),
      };
    });
};

/** Forms of which every item waits only for fields before it. */
const anyForm: fc.Arbitrary<FormItem[]> = fc.nat(9).chain((count) => {
  let form: fc.Arbitrary<FormItem[]> = fc.constant([]);
  for (let at = 0; at <= count; at += 1)
    form = form.chain((items) => anyItem(`k${at}`, items.filter(isField)).map((item) => [...items, item]));
  return form;
});
const anyText = fc.constantFrom(
  '',
  ' ',
  'still',
  'clip',
  'yes',
  'no',
  '3',
  '-2.50',
  '2027-03-02',
  '2027-03-05',
  'a@b.test',
  'https://a.test',
  '+1 234 567',
  'gone',
);
const anyAnswers = (items: readonly FormItem[]): fc.Arbitrary<Answers> =>
  fc
    .tuple(
      ...items
        .filter(isField)
        .map((field) =>
          fc.tuple(
            fc.constant(field.key),
            fc.boolean(),
            fc.oneof(anyText, fc.array(anyText, { maxLength: 3 })),
            isListed(field) ? fc.array(anyText, { maxLength: 3 }) : anyText,
          ),
        ),
    )
    .map((all) => Object.fromEntries(all.filter(([, given]) => given).map(([key, , odd, fit], at) => [key, at % 4 === 3 ? odd : fit])));
const anyFilled = anyForm.chain((items) => anyAnswers(items).map((answers) => ({ items, answers })));
const overTheWire = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

describe('laws of forms', () => {
  it('browser and server say the same: what is checked there is what was sent from here', () => {
    let passed = 0;
    fc.assert(
      fc.property(anyFilled, ({ items, answers }) => {
        const here = checkAnswers(items, answers, { todayOn });
        // the server reads the form from its database and the answers from the wire, and checks what the browser leaves of them
        const there = checkAnswers(overTheWire(items), overTheWire(here.answers), { todayOn });
        expect(there.answers).toEqual(here.answers);
        const { unknown_field: _, ...rest } = here.problems as Record<string, string>;
        const misshapen = Object.values(rest).includes('wrong_shape');
        if (!misshapen) expect(there.problems).toEqual(here.problems);
        if (Object.keys(there.problems).length === 0) passed += 1;
      }),
      { numRuns: RUNS },
    );
    expect(passed).toBeGreaterThan(RUNS / 20); // the forms are not all unanswerable
  });

  it('a hidden field never blocks sending, whatever it holds', () => {
    fc.assert(
      fc.property(anyFilled, anyText, ({ items, answers }, odd) => {
        const { items: shown, answers: counted } = readForm(items, answers);
        const keys = new Set(shown.map(({ key }) => key));
        const hidden = items.filter(isField).filter(({ key }) => !keys.has(key));
        const { problems } = checkAnswers(items, { ...answers, ...Object.fromEntries(hidden.map(({ key }) => [key, odd])) }, { todayOn });
        for (const { key } of hidden) expect(problems[key]).toBeUndefined();
        for (const { key } of hidden) expect(Object.hasOwn(counted, key)).toBe(false);
      }),
      { numRuns: 2000 },
    );
  });

  it('what is needed is shown, and what is shown stands in the order of the form', () => {
    fc.assert(
      fc.property(anyFilled, ({ items, answers }) => {
        const read = readForm(items, answers);
        const keys = read.items.map(({ key }) => key);
        for (const key of read.needed) expect(keys).toContain(key);
        expect(items.map(({ key }) => key).filter((key) => keys.includes(key))).toEqual(keys);
      }),
      { numRuns: 1000 },
    );
  });

  it('a form that waits only for what stands before it has no loop; one closed on purpose is always found', () => {
    fc.assert(
      fc.property(anyForm, fc.array(fc.nat(), { minLength: 1, maxLength: 5 }), (items, picks) => {
        expect(loopIn(items)).toBeUndefined();
        const ring = [...new Set(picks.map((pick) => pick % items.length))];
        // of those picked each waits for the next and the last for the first; a heading or a fixed text becomes a question for that
        const closed = items.map((item, at): FormItem => {
          const next = ring[(ring.indexOf(at) + 1) % ring.length] ?? at;
          if (!ring.includes(at)) return item;
          const shownIf = { all: [{ field: `k${next}`, is: 'answered' as const }, ...(item.shownIf ? [item.shownIf] : [])] };
          return isField(item) ? { ...item, shownIf } : { key: item.key, label: item.label, kind: 'short', shownIf };
        });
        const loop = loopIn(closed);
        if (!loop) throw new Error('a loop was not found');
        const byKey = new Set(closed.map(({ key }) => key));
        for (const key of loop) expect(byKey.has(key)).toBe(true);
        expect(
          formFaults({
            title: 'x',
            intro: '',
            language: 'en',
            items: closed,
            routeId: 'r',
            rules: [],
            thanks: '',
            opensOn: null,
            closesOn: null,
            noticeDays: 0,
            answerDays: 0,
          }).map(({ fault }) => fault),
        ).toContain('loop');
        readForm(closed, Object.fromEntries(closed.map(({ key }) => [key, 'still']))); // comes to an end
      }),
      { numRuns: 2000 },
    );
  });
});
