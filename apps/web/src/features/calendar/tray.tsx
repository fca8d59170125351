import type { CalendarEntryShape } from '@zesting/contract';
import type { ReactNode } from 'react';
import { EntryChip } from './entry-chip';
import type { Colouring } from './view';

interface TrayProps {
  readonly entries: readonly CalendarEntryShape[];
  /** how many more there are */
  readonly hidden: number;
  readonly colouring: Colouring;
  readonly onOpen: (id: string) => void;
  /** what stands above them */
  readonly children?: ReactNode;
}

/** Placements without a date: signed pieces first, then those still under way, which can be pencilled. */
export function Tray({ entries, hidden, children, ...rest }: TrayProps) {
  const signed = entries.filter((entry) => entry.stage === 'approved' || entry.stage === 'scheduled');
  const others = entries.filter((entry) => !signed.includes(entry));
  return (
    <aside
      aria-label="Without a date"
      className="card p-3 grid grid-cols-[minmax(0,1fr)] content-start gap-3 no-print lg:max-h-[calc(100vh-9rem)] lg:overflow-auto"
    >
      {children}
      <TrayPart title="Approved, to be placed" entries={signed} empty="Every approved piece has its date." {...rest} />
      <TrayPart title="Under way, to be pencilled" entries={others} empty="Nothing under way waits for a date." {...rest} />
      {hidden > 0 && <p className="text-muted text-[13px]">{hidden} more: choose a client above to see them.</p>}
    </aside>
  );
}

function TrayPart({ title, entries, empty, ...rest }: Omit<TrayProps, 'hidden' | 'children'> & { title: string; empty: string }) {
  return (
    <section aria-label={title}>
      <h2 className="text-[13px] font-sans font-semibold tracking-normal mb-1">
        {title} <span className="text-muted font-normal tabular">{entries.length || ''}</span>
      </h2>
      {entries.length === 0 && <p className="text-muted text-[13px]">{empty}</p>}
      <ul className="grid grid-cols-[minmax(0,1fr)] gap-1">
        {entries.map((entry) => (
          <li key={entry.id}>
            <EntryChip entry={entry} {...rest} />
          </li>
        ))}
      </ul>
    </section>
  );
}
