import type { Editor } from '@tiptap/core';
import { useEditorState } from '@tiptap/react';
import { isSafeLink } from '@zesting/core';
import { Bold, Italic, Link as LinkSign, List, ListOrdered, Redo2, Undo2, type LucideIcon } from 'lucide-react';
import { useId, useState, type FormEvent } from 'react';
import { Button } from '../button';

const STYLES = ['Words', 'Heading', 'Subheading', 'Small heading'];

/** How what is chosen in an editor is laid out. */
export function Toolbar({ editor, label }: { editor: Editor; label: string }) {
  const [isLinking, setLinking] = useState(false);
  const now = useEditorState({
    editor,
    selector: ({ editor: shown }) => ({
      level: [1, 2, 3].find((level) => shown.isActive('heading', { level })) ?? 0,
      isStrong: shown.isActive('bold'),
      isEmphasis: shown.isActive('italic'),
      isList: shown.isActive('bulletList'),
      isNumbered: shown.isActive('orderedList'),
      isLink: shown.isActive('link'),
      canUndo: shown.can().undo(),
      canRedo: shown.can().redo(),
    }),
  });
  const put = () => editor.chain().focus();
  const style = (level: number) =>
    level === 0
      ? put().setParagraph().run()
      : put()
          .setHeading({ level: level as 1 | 2 | 3 })
          .run(); // of STYLES
  return (
    <div className="border border-b-0 border-line-strong rounded-t-md bg-sunk">
      <div role="toolbar" aria-label={label} className="flex flex-wrap items-center gap-0.5 px-1 py-0.5">
        <select
          aria-label="Kind of line"
          className="bg-transparent rounded-md px-1 w-27 min-h-8 hover:bg-card"
          value={now.level}
          onChange={({ target }) => style(Number(target.value))}
        >
          {STYLES.map((name, level) => (
            <option key={name} value={level}>
              {name}
            </option>
          ))}
        </select>
        <Tool label="Strong" sign={Bold} isOn={now.isStrong} onPress={() => put().toggleBold().run()} />
        <Tool label="Emphasis" sign={Italic} isOn={now.isEmphasis} onPress={() => put().toggleItalic().run()} />
        <Tool label="List" sign={List} isOn={now.isList} onPress={() => put().toggleBulletList().run()} />
        <Tool label="Numbered list" sign={ListOrdered} isOn={now.isNumbered} onPress={() => put().toggleOrderedList().run()} />
        <Tool label="Link" sign={LinkSign} isOn={now.isLink} onPress={() => setLinking(!isLinking)} />
        <span className="ml-auto flex">
          <Tool label="Take back" sign={Undo2} isLocked={!now.canUndo} onPress={() => put().undo().run()} />
          <Tool label="Do again" sign={Redo2} isLocked={!now.canRedo} onPress={() => put().redo().run()} />
        </span>
      </div>
      {isLinking && <LinkForm editor={editor} isThere={now.isLink} onDone={() => setLinking(false)} />}
    </div>
  );
}

interface ToolProps {
  readonly label: string;
  readonly sign: LucideIcon;
  /** left away: it is nothing that is on or off */
  readonly isOn?: boolean;
  readonly isLocked?: boolean;
  readonly onPress: () => void;
}

const Tool = ({ label, sign: Sign, isOn, isLocked = false, onPress }: ToolProps) => (
  <button
    type="button"
    aria-label={label}
    title={label}
    {...(isOn === undefined ? {} : { 'aria-pressed': isOn })}
    disabled={isLocked}
    // the writing keeps the focus, and with it what is chosen
    onMouseDown={(event) => event.preventDefault()}
    onClick={onPress}
    className={`grid place-items-center size-8 rounded-md disabled:opacity-40 ${isOn ? 'bg-pine-soft text-pine' : 'hover:bg-card'}`}
  >
    <Sign size={15} aria-hidden />
  </button>
);

interface LinkFormProps {
  readonly editor: Editor;
  /** the writing stands in a link */
  readonly isThere: boolean;
  readonly onDone: () => void;
}

/** Where the chosen words lead; where none are chosen, the address stands there itself. */
function LinkForm({ editor, isThere, onDone }: LinkFormProps) {
  const before: unknown = editor.getAttributes('link')['href'];
  const [address, setAddress] = useState(typeof before === 'string' ? before : '');
  const [isRefused, setRefused] = useState(false);
  const id = useId();
  const put = (event: FormEvent) => {
    event.preventDefault();
    event.stopPropagation();
    const href = wholeAddress(address);
    if (!isSafeLink(href)) {
      setRefused(true);
      return;
    }
    const chain = editor.chain().focus().extendMarkRange('link');
    if (editor.state.selection.empty && !isThere)
      chain.insertContent({ type: 'text', text: href, marks: [{ type: 'link', attrs: { href } }] }).run();
    else chain.setLink({ href }).run();
    onDone();
  };
  return (
    <form onSubmit={put} className="flex flex-wrap items-center gap-2 px-2 pb-2">
      <input
        aria-label="Where the link leads"
        aria-invalid={isRefused}
        aria-describedby={isRefused ? id : undefined}
        placeholder="https://…"
        className="field flex-1 min-w-48"
        autoFocus
        value={address}
        onChange={({ target }) => {
          setAddress(target.value);
          setRefused(false);
        }}
      />
      <Button type="submit" look="main">
        Put the link
      </Button>
      {isThere && (
        <Button
          onClick={() => {
            editor.chain().focus().extendMarkRange('link').unsetLink().run();
            onDone();
          }}
        >
          Take the link away
        </Button>
      )}
      <Button look="quiet" onClick={onDone}>
        Leave it
      </Button>
      {isRefused && (
        <p id={id} className="text-rhubarb text-[13px] w-full">
          That is no address of a page, such as https://example.test/page, and no mailto: or tel: either.
        </p>
      )}
    </form>
  );
}

/** What people type of an address, with what browsers add to it. */
const wholeAddress = (typed: string): string => {
  const address = typed.trim();
  if (/^[a-z]+:/i.test(address)) return address;
  return /^[^\s@/]+@[^\s@]+$/.test(address) ? `mailto:${address}` : /^[\w-]+(\.[\w-]+)+/.test(address) ? `https://${address}` : address;
};
