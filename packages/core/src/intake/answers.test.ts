import { getDay } from '../time/index.js';
import {
  answerServing,
  checkAnswers,
  fileKindOf,
  isAgencyOnly,
  isEmailLike,
  isLink,
  isPhone,
  type FormField,
  type FormItem,
} from './index.js';

const items: FormItem[] = [
  { key: 'title', kind: 'short', label: 'What is it about?', needed: true, serves: 'title' },
  { key: 'aim', kind: 'long', label: 'What should it do?' },
  { key: 'kind', kind: 'one_of', label: 'Kind', options: [{ value: 'Still' }, { value: 'Clip' }] },
  { key: 'wish', kind: 'day', label: 'When?', serves: 'wish_date' },
  { key: 'page', kind: 'link', label: 'Page' },
  { key: 'pictures', kind: 'files', label: 'Pictures', needed: true },
];
const good = { title: 'Spring sale', wish: '2027-03-16', kind: 'Still', page: 'https://example.test/spring', pictures: ['f1'] };
const todayOn = getDay('2027-03-01');
const problemsOf = (asked: readonly FormItem[], answers: Parameters<typeof checkAnswers>[1], files = {}) =>
  checkAnswers(asked, answers, { todayOn, files }).problems;
/** What is wrong with the answer to one field alone. */
const wrong = (field: Omit<FormField, 'key' | 'label'>, answer: string | string[], files = {}) =>
  problemsOf([{ key: 'it', label: 'It', ...field }], { it: answer }, files)['it'];

describe('answers', () => {
  it('passes a full set, trimmed and without blanks, and reads title and wish date from it', () => {
    expect(checkAnswers(items, { ...good, title: '  Spring sale ', aim: ' ' }, { todayOn })).toEqual({ problems: {}, answers: good });
    expect(answerServing(items, { ...good, title: '  Spring sale ' }, 'title')).toBe('Spring sale');
    expect(answerServing(items, {}, 'wish_date')).toBeUndefined();
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
    expect(problemsOf(items, bad)).toEqual({
      title: 'required',
      aim: 'too_long',
      kind: 'not_an_option',
      wish: 'not_a_date',
      page: 'not_a_link',
      pictures: 'required',
      extra: 'unknown_field',
    });
  });

  it('is not misled by names that every object has', () => {
    const asked: FormItem[] = [{ key: 'constructor', kind: 'short', label: 'Who builds it?', needed: true }];
    expect(problemsOf(asked, {})).toEqual({ constructor: 'required' });
    expect(problemsOf(asked, JSON.parse('{"constructor":"x","__proto__":"x"}') as Record<string, string>)).toEqual({
      ['__proto__']: 'unknown_field',
    });
    expect(answerServing([{ key: 'toString', kind: 'short', label: 'x', serves: 'title' }], {}, 'title')).toBeUndefined();
  });

  it('takes today as a wish date and refuses yesterday; any other day may be past', () => {
    expect(wrong({ kind: 'day', serves: 'wish_date' }, '2027-03-01')).toBeUndefined();
    expect(wrong({ kind: 'day', serves: 'wish_date' }, '2027-02-28')).toBe('in_the_past');
    expect(wrong({ kind: 'day' }, '1999-12-31')).toBeUndefined();
  });

  it.each<[Omit<FormField, 'key' | 'label'>, string | string[], string | undefined]>([
    [{ kind: 'short', min: 3 }, 'ab', 'too_short'],
    [{ kind: 'short', max: 3 }, 'abcd', 'too_long'],
    [{ kind: 'short', max: 5000 }, 'x'.repeat(201), 'too_long'],
    [{ kind: 'short' }, ['a'], 'wrong_shape'],
    [{ kind: 'number' }, '12', undefined],
    [{ kind: 'number' }, '-1.5', undefined],
    [{ kind: 'number' }, '1e5', 'not_a_number'],
    [{ kind: 'number' }, '0x10', 'not_a_number'],
    [{ kind: 'number' }, '1,5', 'not_a_number'],
    [{ kind: 'number', whole: true }, '1.5', 'not_whole'],
    [{ kind: 'number', whole: true }, '2.0', undefined],
    [{ kind: 'number', min: 2 }, '1', 'too_small'],
    [{ kind: 'number', max: 2 }, '2.01', 'too_large'],
    [{ kind: 'money' }, '450.50', undefined],
    [{ kind: 'money' }, '450.505', 'not_a_number'],
    [{ kind: 'day', notBefore: 'today' }, '2027-02-28', 'too_early'],
    [{ kind: 'day', notAfter: getDay('2027-06-30') }, '2027-07-01', 'too_late'],
    [{ kind: 'span' }, ['2027-03-01', '2027-03-04'], undefined],
    [{ kind: 'span' }, ['2027-03-04', '2027-03-01'], 'turned_round'],
    [{ kind: 'span' }, ['2027-03-04'], 'not_a_date'],
    [{ kind: 'span', notAfter: 'today' }, ['2027-03-01', '2027-03-02'], 'too_late'],
    [{ kind: 'several_of', options: [{ value: 'a' }, { value: 'b' }] }, ['a', 'b'], undefined],
    [{ kind: 'several_of', options: [{ value: 'a' }, { value: 'b' }] }, ['a', 'c'], 'not_an_option'],
    [{ kind: 'several_of', options: [{ value: 'a' }, { value: 'b' }] }, ['a', 'a'], 'wrong_shape'],
    [{ kind: 'several_of', options: [{ value: 'a' }, { value: 'b' }], max: 1 }, ['a', 'b'], 'too_many'],
    [{ kind: 'several_of', options: [{ value: 'a' }, { value: 'b' }], min: 2 }, ['a'], 'too_few'],
    [{ kind: 'several_of', options: [{ value: 'a' }] }, 'a', 'wrong_shape'],
    [{ kind: 'yes_no' }, 'yes', undefined],
    [{ kind: 'yes_no' }, 'perhaps', 'not_an_option'],
    [{ kind: 'channel', options: [{ value: 'c1', label: 'Blog' }] }, 'c1', undefined],
    [{ kind: 'channel', options: [{ value: 'c1', label: 'Blog' }] }, 'Blog', 'not_an_option'],
    [{ kind: 'channel', several: true, options: [{ value: 'c1' }] }, ['c1'], undefined],
    [{ kind: 'email' }, 'mira@example.test', undefined],
    [{ kind: 'email' }, 'mira@example', 'not_an_email'],
    [{ kind: 'phone' }, '+44 20 7946 0018', undefined],
    [{ kind: 'phone' }, 'call me', 'not_a_phone'],
    [{ kind: 'files' }, Array.from({ length: 11 }, (_, at) => `f${at}`), 'too_many'],
    [{ kind: 'files', max: 1 }, ['f1', 'f2'], 'too_many'],
    [{ kind: 'files', fileKinds: ['picture'] }, ['f1'], undefined],
    [{ kind: 'files', fileKinds: ['picture'] }, ['f2'], 'file_kind'],
    [{ kind: 'files', megabytes: 5 }, ['f2'], 'file_too_large'],
    [{ kind: 'files', fileKinds: ['picture'], megabytes: 1 }, ['not known'], undefined],
  ])('%j: %j is wrong by %s', (field, answer, problem) => {
    const files = { f1: { mime: 'image/png', bytes: 1000 }, f2: { mime: 'video/mp4', bytes: 5_000_001 } };
    expect(wrong(field, answer, files)).toBe(problem);
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

  it('reads addresses and numbers as people write them', () => {
    expect(['a.b+c@mail.example.test', 'ü@example.test'].every(isEmailLike)).toBe(true);
    expect(
      ['a b@example.test', 'a@b@example.test', '<a@example.test>', 'a@.test', `${'x'.repeat(200)}@example.test`].some(isEmailLike),
    ).toBe(false);
    expect(['020 7946 0018', '(0)30/12 34-56'].every(isPhone)).toBe(true);
    expect(['1234', '1234567890123456', '12+3456', '12345x'].some(isPhone)).toBe(false);
    expect(['image/png', 'video/mp4', 'audio/mpeg', 'application/pdf'].map(fileKindOf)).toEqual(['picture', 'clip', 'sound', 'paper']);
  });

  it('keeps money, e-mail and telephone for the agency unless the form says otherwise', () => {
    const field = (kind: FormField['kind'], agencyOnly?: boolean): FormField => ({
      key: 'x',
      label: 'x',
      kind,
      ...(agencyOnly === undefined ? {} : { agencyOnly }),
    });
    expect([field('money'), field('email'), field('phone'), field('short', true)].every(isAgencyOnly)).toBe(true);
    expect([field('money', false), field('short'), field('number')].some(isAgencyOnly)).toBe(false);
  });
});
