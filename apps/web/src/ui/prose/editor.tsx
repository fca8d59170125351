import { Heading } from '@tiptap/extension-heading';
import { EditorContent, useEditor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { isSafeLink, readProse, writeProse } from '@zesting/core';
import { useEffect, useRef } from 'react';
import { fromDocument, toDocument } from './document';
import { OwnWords, withOwnWords } from './own-words';
import type { ProseEditorProps } from './prose-editor';
import { Toolbar } from './toolbar';

/** Only what our content model has: whatever else is pasted comes as its words. */
const KNOWN = StarterKit.configure({
  blockquote: false,
  code: false,
  codeBlock: false,
  horizontalRule: false,
  strike: false,
  trailingNode: false,
  underline: false,
  heading: false,
  link: { openOnClick: false, autolink: false, linkOnPaste: true, isAllowedUri: (address) => isSafeLink(address) },
});

/** The level of the page's heading above an editor. */
const UNDER = 2;

/** Headings stand below those of the page, as they do where the copy is read; one that is pasted keeps its level as far as there is one. */
const BelowHeading = Heading.extend({
  parseHTML: () =>
    [1, 2, 3, 4, 5, 6].map((level) => ({
      tag: `h${level}`,
      getAttrs: ({ dataset }: HTMLElement) => ({ level: Number(dataset['level']) || Math.min(level, 3) }),
    })),
  renderHTML: ({ node }) => [`h${Number(node.attrs['level']) + UNDER}`, { 'data-level': String(node.attrs['level']) }, 0],
}).configure({ levels: [1, 2, 3] });

/** Writes a copy that is laid out. What it holds is its source; what comes from elsewhere replaces it. */
export function Editor({ label, describedBy, source, onChange, language, ownWords }: ProseEditorProps) {
  const written = useRef(source);
  const latest = useRef(onChange);
  useEffect(() => {
    latest.current = onChange;
  });
  const editor = useEditor({
    extensions: [KNOWN, BelowHeading, OwnWords],
    content: toDocument(readProse(source)),
    onUpdate: ({ editor: changed }) => {
      const next = writeProse(fromDocument(changed.getJSON()));
      if (next === written.current) return;
      written.current = next;
      latest.current(next);
    },
    editorProps: {
      attributes: {
        role: 'textbox',
        'aria-multiline': 'true',
        'aria-label': label,
        ...(describedBy === undefined ? {} : { 'aria-describedby': describedBy }),
        lang: language,
        spellcheck: 'true',
        class: 'field prose rounded-t-none min-h-40 max-h-[36rem] overflow-auto',
      },
    },
  });
  useEffect(() => {
    if (source === written.current) return;
    written.current = source;
    editor.commands.setContent(toDocument(readProse(source)), { emitUpdate: false });
  }, [editor, source]);
  const words = ownWords.join('\n');
  useEffect(() => {
    editor.view.dispatch(withOwnWords(editor.state.tr, words === '' ? [] : words.split('\n')));
  }, [editor, words]);
  return (
    <div>
      <Toolbar editor={editor} label={`How ${label.toLowerCase()} is laid out`} />
      <EditorContent editor={editor} />
    </div>
  );
}
