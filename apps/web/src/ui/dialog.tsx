import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import { useRef, type ReactNode } from 'react';

interface DialogProps {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly description?: string;
  readonly wide?: boolean;
  readonly children: ReactNode;
}

/** A dialog over the page: focus stays in it, Escape closes it, focus goes back to where it came from. */
export function Dialog({ open, onClose, title, description, wide = false, children }: DialogProps) {
  const cameFrom = useRef<Element | null>(null);
  return (
    <Radix.Root open={open} onOpenChange={(next) => (next ? undefined : onClose())}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 bg-black/45 z-40" />
        <Radix.Content
          {...(description ? {} : { 'aria-describedby': undefined })}
          onOpenAutoFocus={() => {
            cameFrom.current = document.activeElement;
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            if (cameFrom.current instanceof HTMLElement) cameFrom.current.focus();
          }}
          className={`fixed z-50 left-1/2 top-[8vh] -translate-x-1/2 w-[calc(100vw-2rem)] ${wide ? 'max-w-4xl' : 'max-w-lg'} max-h-[84vh] overflow-auto card shadow-2xl p-5`}
        >
          <div className="flex items-start gap-3 mb-3">
            <div className="flex-1 min-w-0">
              <Radix.Title className="text-lg">{title}</Radix.Title>
              {description && <Radix.Description className="text-muted">{description}</Radix.Description>}
            </div>
            <Radix.Close className="rounded-md p-1.5 hover:bg-sunk" aria-label="Close">
              <X size={18} aria-hidden />
            </Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
