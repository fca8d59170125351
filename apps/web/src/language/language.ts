import type { FormLanguage } from '@zesting/core';
import i18next from 'i18next';
import { createContext, useContext } from 'react';
import { dayFormats, type DayFormats } from '../lib/format';
import { GERMAN } from './german';

/** A language as components use it. */
export interface Language extends Pick<DayFormats, 'dayWords' | 'instantWords' | 'monthWords'> {
  readonly code: FormLanguage;
  /** the words in this language; `{{name}}` in them is filled in */
  readonly t: (words: string, values?: Readonly<Record<string, string | number>>) => string;
}

/** The English words are the keys: what has no other word is said in English. */
const made = i18next.createInstance();
void made.init({
  lng: 'en',
  fallbackLng: false,
  initAsync: false,
  keySeparator: false,
  nsSeparator: false,
  contextSeparator: '~',
  pluralSeparator: '~',
  interpolation: { escapeValue: false }, // React does
  resources: { de: { translation: GERMAN } },
});

const languageOf = (code: FormLanguage, locale: string): Language => {
  const t = made.getFixedT(code);
  return {
    code,
    // a day that ends with a shortened month ends the sentence too
    t: (words, values) => t(words, { ...values, defaultValue: words }).replace(/\.\.(?=\s|$)/g, '.'),
    ...dayFormats(locale),
  };
};

export const LANGUAGES: Readonly<Record<FormLanguage, Language>> = { en: languageOf('en', 'en-GB'), de: languageOf('de', 'de-DE') };

export const LanguageContext = createContext<Language>(LANGUAGES.en);
/** The language of what is around. */
export const useLanguage = (): Language => useContext(LanguageContext);
