import Papa from 'papaparse';

/**
 * A table on the clipboard, where there is one: with tabs, or said to be one. Anything else is a text, whose lines belong together.
 * @param html what the clipboard has as HTML
 */
export function tableIn(text: string, html: string): string[][] | null {
  if (!text.includes('\t') && !/<table[\s>]/i.test(html)) return null;
  return Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data;
}
