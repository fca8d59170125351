import { useState, type ReactNode } from 'react';
import { fieldWords, valueWords } from '../lib/value-words';
import { ApiProblem, wordsOf } from '../lib/api';
import { useKept } from '../lib/kept';
import { Button } from './button';
import { Dialog } from './dialog';

interface Drafted<T> {
  readonly draft: T;
  /** the version that the draft was begun from */
  readonly base: number;
}

export interface Edited<T> {
  readonly draft: T;
  readonly isDirty: boolean;
  readonly busy: boolean;
  readonly error: string | undefined;
  readonly theirs: T | null;
  readonly change: (part: Partial<T>) => void;
  readonly save: () => Promise<void>;
  readonly drop: () => void;
  readonly keepMine: () => Promise<void>;
}

/**
 * A draft of what is saved. Others' changes do not disturb what is being typed; saving against an older state is noticed, and
 * both states are shown.
 * @param key what the draft belongs to; it is kept under it while the page is away
 * @param store writes the draft over the version given
 * @param read picks what the draft is of, out of the answer to a conflict
 */
export function useEdited<T extends object, Page extends { readonly version: number }>(
  key: string,
  saved: T,
  version: number,
  store: (draft: T, version: number) => Promise<unknown>,
  read: (page: Page) => T,
): Edited<T> {
  const [edited, setEdited] = useKept<Drafted<T>>(key);
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string>();
  const [conflict, setConflict] = useState<Page | null>(null);
  const draft = edited?.draft ?? saved;
  const send = async (base: number) => {
    setBusy(true);
    setError(undefined);
    try {
      await store(draft, base);
      setEdited(null);
      setConflict(null);
    } catch (problem) {
      if (problem instanceof ApiProblem && problem.code === 'http.changed_meanwhile' && problem.body['theirs'])
        setConflict(problem.body['theirs'] as Page); // what this problem carries
      else setError(wordsOf(problem));
    } finally {
      setBusy(false);
    }
  };
  return {
    draft,
    isDirty: edited !== null && JSON.stringify(edited.draft) !== JSON.stringify(saved),
    busy,
    error,
    theirs: conflict && read(conflict),
    change: (part) => {
      const next = { ...draft, ...part };
      setEdited(JSON.stringify(next) === JSON.stringify(saved) ? null : { draft: next, base: edited?.base ?? version });
    },
    save: () => send(edited?.base ?? version),
    drop: () => {
      setEdited(null);
      setConflict(null);
      setError(undefined);
    },
    keepMine: () => send(conflict?.version ?? version),
  };
}

/** A part of a page that is edited and saved by itself. */
export function EditedSection<T extends object>({
  title,
  note,
  edited,
  readOnly = false,
  children,
}: {
  title: string;
  note?: ReactNode;
  edited: Edited<T>;
  readOnly?: boolean;
  children: ReactNode;
}) {
  return (
    <section aria-label={title} className="card p-4">
      <h2 className="text-lg mb-1">{title}</h2>
      {note && <div className="text-muted mb-3 max-w-[75ch]">{note}</div>}
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void edited.save();
        }}
      >
        {children}
        {edited.error && (
          <p role="alert" className="text-rhubarb font-medium mt-3">
            {edited.error} Nothing was saved; what you typed is still here.
          </p>
        )}
        {!readOnly && (
          <div className="flex items-center gap-2 mt-3">
            <Button look="main" type="submit" disabled={!edited.isDirty || edited.busy}>
              Save
            </Button>
            {edited.isDirty && (
              <>
                <Button onClick={edited.drop}>Leave as it was</Button>
                <span className="text-rind text-[13px]">Not saved yet</span>
              </>
            )}
          </div>
        )}
      </form>
      {edited.theirs && <Compare edited={edited} theirs={edited.theirs} />}
    </section>
  );
}

/** Both states of what two people changed, field by field. */
function Compare<T extends object>({ edited, theirs }: { edited: Edited<T>; theirs: T }) {
  const keys = Object.keys(edited.draft).filter(
    (key) => JSON.stringify(Reflect.get(edited.draft, key)) !== JSON.stringify(Reflect.get(theirs, key)),
  );
  return (
    <Dialog
      open
      wide
      onClose={edited.drop}
      title="Somebody else saved this meanwhile"
      description="Nothing was overwritten. Compare, then say which stays."
    >
      <table className="w-full text-left">
        <thead>
          <tr className="text-muted text-[13px]">
            <th className="font-normal py-1 pr-3">What</th>
            <th className="font-normal pr-3">Yours, not saved</th>
            <th className="font-normal">Theirs, saved</th>
          </tr>
        </thead>
        <tbody>
          {keys.map((key) => (
            <tr key={key} className="border-t border-line align-top">
              <th scope="row" className="py-1.5 pr-3 font-medium">
                {fieldWords(key)}
              </th>
              <td className="pr-3 break-words">{valueWords(Reflect.get(edited.draft, key))}</td>
              <td className="break-words">{valueWords(Reflect.get(theirs, key))}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {keys.length === 0 && <p>Both say the same here; the other change was somewhere else on this page.</p>}
      <div className="flex flex-wrap justify-end gap-2 mt-4">
        <Button onClick={edited.drop}>Take theirs</Button>
        <Button look="main" disabled={edited.busy} onClick={() => void edited.keepMine()}>
          Save mine over theirs
        </Button>
      </div>
    </Dialog>
  );
}
