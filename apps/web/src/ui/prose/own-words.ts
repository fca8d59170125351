import { Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey, type Transaction } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';

/** Where words stand in a text, whole and whatever their case, as from and to in UTF-16 units. */
export function placesOf(words: readonly string[], text: string): readonly (readonly [from: number, to: number])[] {
  const sought = words.map((word) => word.trim()).filter((word) => word !== '');
  if (sought.length === 0) return [];
  const any = sought.map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|');
  const found = text.matchAll(new RegExp(`(?<![\\p{L}\\p{N}])(?:${any})(?![\\p{L}\\p{N}])`, 'giu'));
  return [...found].map(({ index, 0: word }) => [index, index + word.length]);
}

interface Kept {
  readonly words: readonly string[];
  readonly marks: DecorationSet;
}

const OWN_WORDS = new PluginKey<Kept>('ownWords');

/** The change that makes some words the client's own. */
export const withOwnWords = (change: Transaction, words: readonly string[]): Transaction =>
  change.setMeta(OWN_WORDS, words).setMeta('addToHistory', false);

function keptIn(document: Node, words: readonly string[]): Kept {
  const marks: Decoration[] = [];
  document.descendants((node, at) => {
    for (const [from, to] of node.isText ? placesOf(words, node.text ?? '') : [])
      marks.push(Decoration.inline(at + from, at + to, { spellcheck: 'false' }));
  });
  return { words, marks: DecorationSet.create(document, marks) };
}

/** Keeps the browser's spell check away from words that are right: the client writes them so. */
export const OwnWords = Extension.create({
  name: 'ownWords',
  addProseMirrorPlugins: () => [
    new Plugin<Kept>({
      key: OWN_WORDS,
      state: {
        init: () => ({ words: [], marks: DecorationSet.empty }),
        apply: (change, kept) => {
          const words = (change.getMeta(OWN_WORDS) as readonly string[] | undefined) ?? kept.words; // as `withOwnWords` sets it
          return change.docChanged || words !== kept.words ? keptIn(change.doc, words) : kept;
        },
      },
      props: { decorations: (state) => OWN_WORDS.getState(state)?.marks },
    }),
  ],
});
