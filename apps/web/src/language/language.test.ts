import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { problemWords } from '../lib/words';
import { GERMAN } from './german';
import { LANGUAGES } from './language';

const SOURCES = join(__dirname, '..');
/** What visitors of a form read: its page, the form itself, and the controls it is made of. */
const FOLDERS = ['ask', 'asked', 'ui'];
const sources = FOLDERS.flatMap((folder) =>
  readdirSync(join(SOURCES, folder))
    .filter((file) => /(?<!\.test)\.tsx?$/.test(file))
    .map((file) => readFileSync(join(SOURCES, folder, file), 'utf8'))
    .filter((text) => text.includes("language/language'")),
);
const said = new Set(
  sources.flatMap((text) =>
    [...text.matchAll(/\bt\(\s*'((?:[^'\\]|\\.)*)'|\bwords: '([^']*)'/g)].map(([, words, listed]) => words ?? listed ?? ''),
  ),
);
/** What the server can answer to the page of a form. */
const PROBLEMS = [
  'http.offline',
  'http.unexpected',
  'http.try_again',
  'http.invalid',
  'access.link_not_open',
  'ask.too_much',
  'ask.not_published',
  'ask.not_now',
  'ask.form_changed',
  'ask.not_opened',
  'request.answers_wrong',
  'request.already_decided',
  'file.unknown',
  'file.type_refused',
  'file.broken',
  'file.too_many_pixels',
  'file.no_room',
];
const CUT = ['The connection was cut. What was sent is kept.', 'This file is larger than 2 GB. Send a smaller one.', 'Paused'];
const holes = (words: string): string[] => (words.match(/\{\{\w+\}\}/g) ?? []).sort();

describe('the words of a form’s page in German', () => {
  it('are there for every word that is said', () => {
    expect(said.size).toBeGreaterThan(50);
    const wanted = [...said, ...PROBLEMS.map((code) => problemWords(code)), ...CUT];
    expect(wanted.filter((words) => GERMAN[words] === undefined)).toEqual([]);
    expect(Object.keys(GERMAN).filter((words) => !wanted.includes(words))).toEqual([]);
  });

  it('leave the same to be filled in', () => {
    for (const [english, german] of Object.entries(GERMAN)) expect([english, holes(german)]).toEqual([english, holes(english)]);
  });

  it('are said where a form is German, with what is filled in', () => {
    const { t, dayWords } = LANGUAGES.de;
    expect(t('At most {{limit}}.', { limit: 3 })).toBe('Höchstens 3.');
    expect(dayWords('2027-03-16', null)).toBe('Di. 16. März 2027');
    expect(t('We answer by {{day}}.', { day: dayWords('2027-12-02', null) })).toMatch(/bis Do\. 2\. Dez\. 2027\.$/);
    expect(t('We answer by {{day}}.', { day: 'Do. 2. Dez.' })).toBe('Wir antworten bis Do. 2. Dez.');
    expect(LANGUAGES.en.t('At most {{limit}}.', { limit: 3 })).toBe('At most 3.');
    expect(LANGUAGES.en.dayWords('2027-03-16', null)).toBe('Tue 16 Mar 2027');
    expect(t('A word that nobody translated: {{word}}', { word: 'x' })).toBe('A word that nobody translated: x');
  });
});
