import { Command } from 'cmdk';
import { Dialog as Radix } from 'radix-ui';
import { useState, type ReactNode } from 'react';

export interface FinderItem {
  readonly id: string;
  readonly title: string;
  readonly note: string;
  readonly lead?: ReactNode;
  readonly go: () => void;
}

export interface FinderGroup {
  readonly title: string;
  readonly items: readonly FinderItem[];
}

interface FinderProps {
  readonly onClose: () => void;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly groups: readonly FinderGroup[];
  /** said when nothing is found */
  readonly empty: string;
}

/** One field over the page and what it finds: arrow keys choose, Enter goes there, Escape closes. */
export function Finder({ onClose, text, onText, groups, empty }: FinderProps) {
  const filled = groups.filter((group) => group.items.length > 0);
  const ids = filled.flatMap((group) => group.items.map((item) => item.id));
  const [picked, setPicked] = useState('');
  // what is found changes while it is typed: the first is chosen until another is
  const chosen = ids.includes(picked) ? picked : (ids[0] ?? '');
  const total = filled.reduce((sum, group) => sum + group.items.length, 0);
  return (
    <Radix.Root open onOpenChange={(open) => (open ? undefined : onClose())}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 bg-black/45 z-40" />
        <Radix.Content
          aria-describedby={undefined}
          className="fixed z-50 left-1/2 top-[10vh] -translate-x-1/2 w-[calc(100vw-2rem)] max-w-xl card shadow-2xl overflow-hidden"
        >
          <Radix.Title className="sr-only">Find</Radix.Title>
          <Command shouldFilter={false} loop label="Find" value={chosen} onValueChange={setPicked}>
            <Command.Input
              value={text}
              onValueChange={onText}
              placeholder="A piece, request, client, person, or something to do"
              className="w-full bg-transparent px-4 min-h-12 text-base border-b border-line outline-none"
            />
            <p role="status" className="sr-only">
              {total === 0 ? empty : `${total} found`}
            </p>
            <Command.List className="max-h-[56vh] overflow-auto p-1.5" aria-label="Found" tabIndex={-1}>
              {total === 0 && <p className="text-muted px-3 py-6 text-center">{empty}</p>}
              {filled.map((group) => (
                <Command.Group
                  key={group.title}
                  heading={group.title}
                  className="[&_[cmdk-group-heading]]:text-muted [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:px-2.5 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-0.5"
                >
                  {group.items.map((item) => (
                    <Command.Item
                      key={item.id}
                      value={item.id}
                      onSelect={() => {
                        onClose();
                        item.go();
                      }}
                      className="flex items-baseline gap-2.5 rounded-md px-2.5 py-1.5 cursor-pointer data-[selected=true]:bg-pine-soft"
                    >
                      {item.lead && <span className="shrink-0 self-center">{item.lead}</span>}
                      <span className="truncate">{item.title}</span>
                      <span className="ml-auto text-muted text-[13px] truncate max-w-[45%]">{item.note}</span>
                    </Command.Item>
                  ))}
                </Command.Group>
              ))}
            </Command.List>
          </Command>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
