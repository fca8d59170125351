import type { Request, Response } from 'express';
import { checkInput, refuseDeepJson } from './checks';
import { Problem } from './problem';

/** What is refused of a request: field and rule; null where it passes. */
function faultOf(body: unknown, address = '/api/x', query: Record<string, unknown> = {}): unknown {
  let refused: unknown = null;
  checkInput({ body, originalUrl: address, query } as unknown as Request, {} as Response, (problem) => (refused = problem ?? null));
  return refused instanceof Problem ? refused.extra['errors'] : refused;
}

describe('what could be meant by nobody', () => {
  it('is refused with the field named: NUL and half characters, in texts and in names', () => {
    expect(faultOf({ title: 'a\0b' })).toEqual({ title: ['isText'] });
    expect(faultOf({ shared: { media: [{ alt: 'fine' }, { alt: '\ud800' }] } })).toEqual({ 'shared.media.1.alt': ['isText'] });
    expect(faultOf({ answers: { 'a\0': 'x' } })).toEqual({ answers: ['isFieldName'] });
    expect(faultOf(JSON.parse('{"answers":{"__proto__":"x"}}'))).toEqual({ answers: ['isFieldName'] });
    expect(faultOf({ steps: [[{}]] })).toEqual({ 'steps.0': ['isNotList'] });
    expect(faultOf(['x'])).toEqual({ body: ['isObject'] });
  });

  it('is refused in an address and its query', () => {
    expect(faultOf({}, '/api/find?q=%00')).toEqual({ address: ['isText'] });
    expect(faultOf({}, '/api/find?q=%zz')).toEqual({ address: ['isText'] });
    expect(faultOf({}, '/', { cursor: 'x' })).toEqual({ cursor: ['isOfItsKind'] });
    expect(faultOf({}, '/', { clientId: ['a', 'b'] })).toEqual({ clientId: ['isOneText'] });
    expect(faultOf({}, '/', { from: '2027-02-30' })).toEqual({ from: ['isDay'] });
  });

  it('loses control characters that came along with a pasted text, and keeps tabs and line ends', () => {
    const request = {
      body: { title: 'A\u000bB\u0007', lines: ['a\tb\r\nc'], count: 1 },
      originalUrl: '/',
      query: {},
    } as unknown as Request;
    checkInput(request, {} as Response, () => undefined);
    expect(request.body).toEqual({ title: 'AB', lines: ['a\tb\r\nc'], count: 1 });
  });

  it('leaves alone what people write', () => {
    const text = 'Ça va? 你好 👩‍🌾 — “quotes”, tabs\tand\nlines';
    expect(faultOf({ text, list: ['a'], nested: { weeklyMinutes: [480, 0] }, none: null }, '/api/x?q=%E4%BD%A0', { q: '你好' })).toBeNull();
    expect(faultOf(undefined)).toBeNull();
  });
});

describe('a body nested beyond reason', () => {
  const refuses = (text: string) => {
    try {
      refuseDeepJson({} as never, {}, Buffer.from(text));
      return false;
    } catch (problem) {
      return problem instanceof Problem && problem.code === 'http.invalid';
    }
  };

  it('is refused before it is taken apart; brackets in texts do not count', () => {
    expect(refuses('['.repeat(50_000))).toBe(true);
    expect(refuses('{"a":'.repeat(17) + '1' + '}'.repeat(17))).toBe(true);
    expect(refuses(JSON.stringify({ a: [{ b: { c: [1, { d: {} }] } }], e: '[[[[[[[[[[[[[[[[\\"[[[[' }))).toBe(false);
  });
});
