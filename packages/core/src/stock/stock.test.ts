import { routeProblems } from '../route/index.js';
import { CHANNEL_KINDS, CHANNEL_STOCK, FORM_STOCK, ROUTE_STOCK, SKILL_STOCK } from './index.js';

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

  it('has a channel for each kind, in a shape that a channel may have', () => {
    expect(Object.keys(CHANNEL_STOCK)).toEqual([...CHANNEL_KINDS]);
    for (const { ratio, name } of Object.values(CHANNEL_STOCK)) expect(`${name} ${ratio}`).toMatch(/^[A-Z][a-z -]+ [1-9]\d?:[1-9]\d?$/);
  });

  it('has a form that gives a title and a wish date, each once, and takes a route of the stock', () => {
    for (const purpose of ['title', 'wish_date']) expect(FORM_STOCK.fields.filter((field) => field.serves === purpose)).toHaveLength(1);
    expect(new Set(FORM_STOCK.fields.map((field) => field.key)).size).toBe(FORM_STOCK.fields.length);
    expect(ROUTE_STOCK.map((route) => route.formatName)).toContain(FORM_STOCK.formatName);
  });
});
