import { routeProblems } from '../route/index.js';
import { fieldsOf, formFaults } from '../intake/index.js';
import { CHANNEL_KINDS, CHANNEL_STOCK, FORM_STOCK, ROUTE_STOCK, SKILL_STOCK, WRITING_STOCK } from './index.js';

describe('the starting stock', () => {
  it.each(ROUTE_STOCK.map((route) => [route.name, route] as const))('has a route for %s that pieces can take', (_name, { steps }) => {
    expect(routeProblems(steps)).toEqual([]);
    expect(steps.at(-1)).toMatchObject({ kind: 'sign_off', after: ['check'] });
    // a round of changes has something to be done again
    expect(steps.some((step) => step.kind === 'make' && step.reworkSpanDays !== undefined)).toBe(true);
    for (const { kind, skill } of steps) if (kind !== 'sign_off') expect(SKILL_STOCK).toContain(skill);
  });

  it('has one route per format, and no name twice', () => {
    expect(new Set(ROUTE_STOCK.map((route) => route.formatName)).size).toBe(ROUTE_STOCK.length);
    expect(new Set(ROUTE_STOCK.map((route) => route.name)).size).toBe(ROUTE_STOCK.length);
  });

  it.each(Object.entries(WRITING_STOCK))(
    'has texts for %s that stand apart, each with what helps to write it',
    (format, { texts, outline }) => {
      expect(ROUTE_STOCK.map((route) => route.formatName)).toContain(format);
      for (const names of [texts.map(({ key }) => key), texts.map(({ name }) => name)]) expect(new Set(names).size).toBe(names.length);
      for (const { key, prompt, limit } of texts) {
        expect(key).toMatch(/^[a-z0-9-]{1,40}$/);
        expect(prompt.length).toBeLessThanOrEqual(300);
        expect(limit ?? 1).toBeGreaterThan(0);
      }
      for (const { heading, prompt } of outline) expect([heading, prompt]).not.toContain('');
    },
  );

  it('has a channel for each kind, in a shape that a channel may have', () => {
    expect(Object.keys(CHANNEL_STOCK)).toEqual([...CHANNEL_KINDS]);
    for (const { ratio, name } of Object.values(CHANNEL_STOCK)) expect(`${name} ${ratio}`).toMatch(/^[A-Z][a-z -]+ [1-9]\d?:[1-9]\d?$/);
  });

  it.each(FORM_STOCK.map((form) => [form.name, form] as const))('has a form for %s that can be published as it is', (_name, form) => {
    const rest = {
      language: 'en',
      routeId: 'the format’s',
      rules: [],
      thanks: '',
      opensOn: null,
      closesOn: null,
      noticeDays: 0,
      answerDays: 0,
    } as const;
    expect(formFaults({ ...form, ...rest })).toEqual([]);
    expect(fieldsOf(form.items).filter(({ serves }) => serves === 'title')).toHaveLength(1);
    expect(ROUTE_STOCK.map((route) => route.formatName)).toContain(form.formatName);
  });
});
