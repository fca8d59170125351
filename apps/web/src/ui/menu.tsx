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
