import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

/** A button that opens a short list of choices. */
export function Menu({
  label,
  trigger,
  className = '',
  children,
}: {
  label: string;
  trigger: ReactNode;
  className?: string;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={className} aria-label={label}>
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={6} className="z-50 card shadow-2xl p-1 min-w-56 max-h-[70vh] overflow-auto">
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export function MenuItem({ onSelect, children }: { onSelect: () => void; children: ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="flex items-center gap-2 rounded-md px-2.5 min-h-8 cursor-pointer data-[highlighted]:bg-sunk data-[highlighted]:outline-none"
    >
      {children}
    </DropdownMenu.Item>
  );
}

interface TickMenuProps {
  readonly label: string;
  readonly trigger: ReactNode;
  readonly className?: string;
  readonly items: readonly { readonly id: string; readonly name: string; readonly isOn: boolean }[];
  readonly onTick: (id: string, isOn: boolean) => void;
}

/** A button that opens a list of things to be ticked; it stays open while they are. */
export function TickMenu({ label, trigger, className = '', items, onTick }: TickMenuProps) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={className}>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={6} className="z-50 card shadow-2xl p-1 grid grid-cols-2 min-w-64" aria-label={label}>
          {items.map(({ id, name, isOn }) => (
            <DropdownMenu.CheckboxItem
              key={id}
              checked={isOn}
              onCheckedChange={(next) => onTick(id, next)}
              onSelect={(event) => event.preventDefault()}
              className="flex items-center gap-2 rounded-md px-2.5 min-h-8 cursor-pointer data-[highlighted]:bg-sunk data-[highlighted]:outline-none"
            >
              <span className="w-4 text-pine" aria-hidden>
                <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
              </span>
              {name}
            </DropdownMenu.CheckboxItem>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
