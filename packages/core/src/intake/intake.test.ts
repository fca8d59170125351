import { getDay } from '../time/index.js';
import { answerServing, checkAnswers, isLink, type FormField } from './index.js';

const fields: FormField[] = [
  { key: 'title', kind: 'short', label: 'What is it about?', required: true, serves: 'title' },
  { key: 'aim', kind: 'long', label: 'What should it do?' },
  { key: 'kind', kind: 'choice', label: 'Kind', options: ['Still', 'Clip'] },
  { key: 'wish', kind: 'date', label: 'When?', serves: 'wish_date' },
  { key: 'page', kind: 'link', label: 'Page' },
  { key: 'pictures', kind: 'files', label: 'Pictures', required: true },
];
const good = { title: 'Spring sale', wish: '2027-03-16', kind: 'Still', page: 'https://example.test/spring', pictures: ['f1'] };
const today = getDay('2027-03-01');

describe('answers', () => {
  it('passes a full set, and reads title and wish date from it', () => {
    expect(checkAnswers(fields, good, today)).toEqual({});
    expect(answerServing(fields, { ...good, title: '  Spring sale ' }, 'title')).toBe('Spring sale');
    expect(answerServing(fields, {}, 'wish_date')).toBeUndefined();
  });

  it('names one problem per field', () => {
    const bad = {
      title: ' ',
      aim: 'x'.repeat(10_001),
      kind: 'Song',
      wish: '2027-02-30',
      page: 'javascript:alert(1)',
      pictures: [],
      extra: 'x',
    };
    expect(checkAnswers(fields, bad, today)).toEqual({
      title: 'required',
      aim: 'too_long',
      kind: 'not_an_option',
      wish: 'not_a_date',
      page: 'not_a_link',
      pictures: 'required',
      extra: 'unknown_field',
    });
  });

  it('takes a past day where a form asks for another date than the wish', () => {
    const asked: FormField[] = [{ key: 'since', kind: 'date', label: 'Since when?' }];
    expect(checkAnswers(asked, { since: '1999-12-31' }, today)).toEqual({});
  });

  it('is not misled by names that every object has', () => {
    const asked: FormField[] = [{ key: 'constructor', kind: 'short', label: 'Who builds it?' }];
    expect(checkAnswers(asked, {}, today)).toEqual({});
    expect(checkAnswers(asked, JSON.parse('{"__proto__":"x"}') as Record<string, string>, today)).toEqual({
      ['__proto__']: 'unknown_field',
    });
    expect(answerServing([{ key: 'toString', kind: 'short', label: 'x', serves: 'title' }], {}, 'title')).toBeUndefined();
  });

  it('takes today as a wish date and refuses yesterday', () => {
    expect(checkAnswers(fields, { ...good, wish: '2027-03-01' }, today)).toEqual({});
    expect(checkAnswers(fields, { ...good, wish: '2027-02-28' }, today)).toEqual({ wish: 'in_the_past' });
  });

  it('refuses a list where a text belongs, and too many files', () => {
    expect(checkAnswers(fields, { ...good, title: ['a'], pictures: Array.from({ length: 11 }, String) }, today)).toEqual({
      title: 'wrong_shape',
      pictures: 'too_long',
    });
  });

  it.each([
    ['https://example.test', true],
    ['http://a.example.test:8080/x?y=1#z', true],
    ['https://example', false],
    ['ftp://example.test', false],
    ['https://user@example.test', false],
    ['https://a..b', false],
    ['https://.example.test', false],
    ['https://example.test:99999', false],
    ['https://example.test:0', false],
    ['https://example.test:443/x', true],
    ['https://example.test/a b', false],
  ])('%s is a link: %s', (text, expected) => {
    expect(isLink(text)).toBe(expected);
  });
});
