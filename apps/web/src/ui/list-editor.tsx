import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button, IconButton } from './button';

interface ListEditorProps<T> {
  readonly label: string;
  readonly items: readonly T[];
  readonly onChange: (items: T[]) => void;
  /** what an item is called, for the buttons beside it */
  readonly nameOf: (item: T) => string;
  /** a new one; without it only what was taken out comes back */
  readonly make?: () => T;
  readonly addWords?: string;
  readonly empty: string;
  /** whether the order says something */
  readonly ordered?: boolean;
  /** what was taken out earlier and can come back */
  readonly archived?: readonly T[];
  readonly archivedWords?: string;
  /** one line each */
  readonly dense?: boolean;
  readonly children: (item: T, change: (part: Partial<T>) => void, index: number) => ReactNode;
}

const idOf = (item: object): string => String(Reflect.get(item, 'id') ?? '');

/** Entries one below the other: each with its fields, to be moved, taken out, and added. */
export function ListEditor<T extends object>({
  label,
  items,
  onChange,
  nameOf,
  make,
  addWords,
  empty,
  ordered = false,
  archived = [],
  archivedWords = 'Taken out earlier',
  dense = false,
  children,
}: ListEditorProps<T>) {
  const away = archived.filter((item) => !items.some((other) => idOf(other) === idOf(item)));
  const put = (index: number, part: Partial<T>) => onChange(items.map((item, at) => (at === index ? { ...item, ...part } : item)));
  const move = (from: number, to: number) => {
    const next = [...items];
    const [moved] = next.splice(from, 1);
    if (moved) next.splice(to, 0, moved);
    onChange(next);
  };
  return (
    <div role="group" aria-label={label}>
      {items.length === 0 && <p className="text-muted mb-2">{empty}</p>}
      <ol className={dense ? 'grid gap-1' : 'grid gap-2'}>
        {items.map((item, index) => (
          <li
            key={index}
            className={`card bg-paper grid grid-cols-[minmax(0,1fr)_auto] gap-3 ${dense ? 'px-2 py-1 items-center' : 'p-3 items-start'}`}
          >
            <div className="min-w-0">{children(item, (part) => put(index, part), index)}</div>
            <div className={dense ? 'flex' : 'flex flex-col gap-1'}>
              {ordered && (
                <>
                  <IconButton label={`Move ${nameOf(item) || 'this'} up`} disabled={index === 0} onClick={() => move(index, index - 1)}>
                    <ArrowUp size={15} aria-hidden />
                  </IconButton>
                  <IconButton
                    label={`Move ${nameOf(item) || 'this'} down`}
                    disabled={index === items.length - 1}
                    onClick={() => move(index, index + 1)}
                  >
                    <ArrowDown size={15} aria-hidden />
                  </IconButton>
                </>
              )}
              <IconButton label={`Take out ${nameOf(item) || 'this'}`} onClick={() => onChange(items.filter((_, at) => at !== index))}>
                <Trash2 size={15} aria-hidden />
              </IconButton>
            </div>
          </li>
        ))}
      </ol>
      {make && (
        <Button className="mt-2" onClick={() => onChange([...items, make()])}>
          <Plus size={15} aria-hidden /> {addWords}
        </Button>
      )}
      {away.length > 0 && (
        <details className="mt-2">
          <summary className="text-muted text-[13px] min-h-7">
            {archivedWords} ({away.length})
          </summary>
          <ul>
            {away.map((item) => (
              <li key={idOf(item)} className="flex items-center gap-2">
                {nameOf(item)}
                <Button look="quiet" aria-label={`Bring back ${nameOf(item)}`} onClick={() => onChange([...items, item])}>
                  Bring back
                </Button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
