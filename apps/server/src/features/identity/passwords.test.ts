import { programOf } from './devices.js';
import { isEasilyGuessed } from './passwords.js';

describe('passwords that are guessed first', () => {
  const known = ['Max Mustermann', 'max.mustermann@agency.test', 'Agency of Good Words'];

  // the first three head every published list of common passwords (common knowledge); the rest are patterns
  it.each([
    'password1234',
    '1234567890',
    'qwertyuiop',
    'iloveyou2024',
    'Passw0rd!Passw0rd!',
    'aaaaaaaaaaaaaaaa',
    'abcdefghijkl',
    '2024-11-24!',
    'max.mustermann@agency.test',
    'MaxMustermann1',
    'zesting2026',
  ])('%s is refused', (password) => {
    expect(isEasilyGuessed(password, known)).toBe(true);
  });

  it.each(['tangerine-lamp-42', 'my aunt keeps eels', 'kHLwDyxqstOgJW', 'грушевый пирог', '茶壺と青い自転車と雨'])(
    '%s is taken',
    (password) => {
      expect(isEasilyGuessed(password, known)).toBe(false);
    },
  );

  it('takes what is a name to one for no name of another', () => {
    expect(isEasilyGuessed('quillhavenhouse', ['Quillhaven House'])).toBe(true);
    expect(isEasilyGuessed('quillhavenhouse', known)).toBe(false);
  });

  it('judges what is very long by its beginning', () => {
    expect(isEasilyGuessed('a'.repeat(40) + 'kHLwDyxqstOgJWo+xLk/HKf52ETMK+'.repeat(5), known)).toBe(true);
    expect(isEasilyGuessed('kHLwDyxqstOgJWo+xLk/HKf52ETMK+'.repeat(6), known)).toBe(false);
  });
});

describe('what a browser says of itself', () => {
  it('is told in a few words, or not at all', () => {
    expect(programOf('Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0')).toBe('Firefox on Linux');
    expect(programOf('')).toBe('');
    expect(programOf('\u0000<script>')).toBe('');
  });
});
