/** Languages that copy is written in, as words are looked for in them: ISO 639-1. */
export const COPY_LANGUAGES = ['da', 'de', 'en', 'es', 'fi', 'fr', 'it', 'nl', 'no', 'pt', 'sv'] as const;
export type CopyLanguage = (typeof COPY_LANGUAGES)[number];
