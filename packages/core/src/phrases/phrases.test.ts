import fc from 'fast-check';
import { PHRASE_KINDS, withPhrase } from './index.js';

describe('a phrase in a copy', () => {
  it.each([
    ['', 'opening', 'Did you know?', 'Did you know?'],
    ['We bake at two.\n', 'opening', 'Did you know?', 'Did you know?\n\nWe bake at two.\n'],
    ['We bake at two.\n', 'closing', 'See you at seven. ', 'We bake at two.\n\nSee you at seven.'],
    ['We bake at two.', 'call_to_action', 'Order by Thursday.', 'We bake at two.\n\nOrder by Thursday.'],
    ['  ', 'template', 'What:\nWhen:', 'What:\nWhen:'],
    ['We bake at two.', 'template', 'What:\nWhen:', 'We bake at two.\n\nWhat:\nWhen:'],
    ['We bake.', 'closing', ' ', 'We bake.'],
  ] as const)('%j, %s', (copy, kind, text, expected) => expect(withPhrase(copy, { kind, text })).toBe(expected));

  it('is put in once, loses nothing of what was there, and stands where its kind does', () => {
    const words = fc.constantFrom('', 'One.', ' Two\nthree ', 'Four');
    fc.assert(
      fc.property(words, fc.constantFrom(...PHRASE_KINDS), words, (copy, kind, text) => {
        const once = withPhrase(copy, { kind, text });
        expect(withPhrase(once, { kind, text })).toBe(once);
        expect(once).toContain(copy.trim());
        if (text.trim() !== '')
          expect(kind === 'opening' ? once.trim().startsWith(text.trim()) : once.trim().endsWith(text.trim())).toBe(true);
      }),
    );
  });
});
