import { compareContent } from '../compare/index.js';
import { digestParts } from '../digest/index.js';
import {
  EMPTY_SHARED_PART,
  firstDraft,
  frozen,
  namedTexts,
  outlineFor,
  tidied,
  wordingsOf,
  writtenTexts,
  type Content,
  type FormatText,
} from './index.js';

const text = (key: string, more: Partial<FormatText> = {}): FormatText => ({
  key,
  name: key.toUpperCase(),
  isLong: false,
  prompt: '',
  limit: null,
  isNeeded: false,
  ...more,
});

describe('the texts of a piece besides its copy', () => {
  const asked = [text('subject', { limit: 60 }), text('preview')];

  it('are those of its format, in its order, and then what is written and no longer asked for', () => {
    const have = [
      { key: 'old', name: 'Old', text: 'Still here' },
      { key: 'preview', name: 'As it was called', text: 'P' },
    ];
    expect(writtenTexts(asked, have).map(({ key, name, text: words, isAsked }) => [key, name, words, isAsked])).toEqual([
      ['subject', 'SUBJECT', '', true],
      ['preview', 'PREVIEW', 'P', true],
      ['old', 'Old', 'Still here', false],
    ]);
    expect(writtenTexts([], [])).toEqual([]);
  });

  it('are written under the names that the format gives them now, in its order', () => {
    const before = [{ key: 'old', name: 'Old', text: 'O' }];
    const given = [
      { key: 'old', text: 'O2' },
      { key: 'preview', text: 'P' },
      { key: 'subject', text: 'S' },
    ];
    expect(namedTexts(given, asked, before)).toEqual([
      { key: 'subject', name: 'SUBJECT', text: 'S' },
      { key: 'preview', name: 'PREVIEW', text: 'P' },
      { key: 'old', name: 'Old', text: 'O2' },
    ]);
    expect(namedTexts([{ key: 'strange', text: 'X' }], asked, before)).toBeUndefined();
    expect(namedTexts([{ key: 'old', text: 'O' }], asked)).toBeUndefined();
  });
});

describe('an outline', () => {
  const general = { heading: 'What it is about', prompt: '' };
  const letter = { heading: 'In two sentences', prompt: '', kinds: ['newsletter'] };
  const short = { heading: 'The first line', prompt: '', kinds: ['newsletter', 'microblog'] };
  it.each([
    ['nowhere yet', [], [general]],
    ['on another kind', ['blog'], [general]],
    ['on its kind', ['newsletter'], [general, letter, short]],
    ['on its kind and another', ['newsletter', 'blog'], [general]],
    ['on two of which one heading is for both', ['newsletter', 'microblog'], [general, short]],
  ])('of a copy that goes out %s', (_, kinds, expected) => expect(outlineFor([general, letter, short], kinds)).toEqual(expected));
});

describe('a first draft', () => {
  const outline = [
    { heading: 'What it is about', prompt: 'not written' },
    { heading: 'For whom?', prompt: '' },
  ];

  it('has the opening, each heading with what was answered under its name, and the other answers at the end', () => {
    const answers = [
      { question: 'For whom', answer: 'Those who bake at home' },
      { question: 'The offer', answer: ' Two for one ' },
      { question: 'Nothing', answer: ' ' },
    ];
    expect(firstDraft('Stop kneading.', outline, answers)).toBe(
      'Stop kneading.\n\nWhat it is about\n\nFor whom?\n\nThose who bake at home\n\nThe offer\nTwo for one',
    );
  });

  it('is laid out where its copy is, and takes no word for a mark', () => {
    const answers = [
      { question: 'For whom', answer: '# 1 in *rye*' },
      { question: 'The offer', answer: 'Two\nfor one' },
    ];
    expect(firstDraft('Stop kneading.', outline, answers, { isLaidOut: true })).toBe(
      'Stop kneading.\n\n# What it is about\n\n# For whom?\n\n\\# 1 in \\*rye\\*\n\n# The offer\n\nTwo\\\nfor one',
    );
  });

  it('is what there is of it, and nothing where there is nothing', () => {
    expect(firstDraft('', outline, [])).toBe('What it is about\n\nFor whom?');
    expect(firstDraft(' ', [], [])).toBe('');
  });
});

describe('other wordings', () => {
  it('are kept once each, without blanks and what is written; frozen and signed they are not', () => {
    const texts = [{ key: 'title', name: 'Title', text: 'Rye ' }];
    expect(wordingsOf({ title: [' Bread', 'Rye', 'Bread', ' '], subject: [''] }, texts)).toEqual({ title: ['Bread'] });
    const of = (others?: Record<string, string[]>): Content => ({
      shared: { ...EMPTY_SHARED_PART, texts, ...(others ? { others } : {}) },
      channels: {},
    });
    expect(tidied(of({ title: ['Rye'] }))).toEqual(of());
    expect(tidied(of({ title: ['Bread'], hook: ['Stop'] }))).toEqual(of({ title: ['Bread'], hook: ['Stop'] }));
    expect(frozen(of({ title: ['Bread'] }))).toEqual(of());
    expect(digestParts('c', 'p', of({ title: ['Bread'] }))).toEqual(digestParts('c', 'p', of()));
    expect(compareContent(of({ title: ['Bread'] }), of())).toEqual([]);
  });
});
