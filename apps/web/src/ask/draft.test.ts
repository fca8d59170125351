import { EMPTY_DRAFT, sendingOf } from './draft';

describe('sending a draft', () => {
  const draft = { ...EMPTY_DRAFT, name: 'Hana', email: 'hana@mossgrove.test', answers: { about: 'Ferns' } };

  it('keeps the key while nothing changes, so that a repeat makes no second request', () => {
    const first = sendingOf(draft);
    expect(sendingOf({ ...draft, sent: first })).toEqual(first);
  });

  it('takes a new key once an answer changed', () => {
    const first = sendingOf(draft);
    expect(sendingOf({ ...draft, answers: { about: 'Moss' }, sent: first }).key).not.toBe(first.key);
  });

  it('does not count white space around the name as a change', () => {
    const first = sendingOf(draft);
    expect(sendingOf({ ...draft, name: ' Hana ', sent: first }).key).toBe(first.key);
  });
});
