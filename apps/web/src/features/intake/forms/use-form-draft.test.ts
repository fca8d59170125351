import type { FormContent } from '@zesting/core';
import { begun, changed, redone, undone, withPart } from './use-form-draft';

const content = (title: string) => ({ title, items: [] }) as unknown as FormContent; // what the history looks at

describe('what was changed of a form', () => {
  it('is undone and done again, step by step', () => {
    let history = changed(changed(begun(content('a')), content('b'), null), content('c'), null);
    history = undone(undone(undone(history)));
    expect([history.now.title, history.past.length, history.future.length]).toEqual(['a', 0, 2]);
    history = redone(redone(redone(history)));
    expect([history.now.title, history.past.length, history.future.length]).toEqual(['c', 2, 0]);
  });

  it('joins typing on of the same to one step, until something else comes between', () => {
    let history = begun(content(''));
    for (const title of ['a', 'ab', 'abc']) history = changed(history, content(title), 'title');
    history = changed(history, content('abc!'), 'intro');
    history = changed(history, content('abc!?'), 'title');
    expect(history.past.map(({ title }) => title)).toEqual(['', 'abc', 'abc!']);
  });

  it('forgets what was undone once something else is changed, and takes no step for no change', () => {
    const back = undone(changed(begun(content('a')), content('b'), null));
    expect(changed(back, content('c'), null).future).toEqual([]);
    expect(changed(back, content('a'), null)).toBe(back);
  });

  it('keeps so many steps and no more', () => {
    let history = begun(content('0'));
    for (let step = 1; step <= 150; step += 1) history = changed(history, content(String(step)), null);
    expect([history.past.length, history.past[0]?.title]).toEqual([100, '50']);
  });

  it('takes out what is set to nothing', () => {
    expect(withPart({ key: 'a', kind: 'short', label: 'A', help: 'H' }, { help: undefined } as never)).toEqual({
      key: 'a',
      kind: 'short',
      label: 'A',
    });
  });
});
