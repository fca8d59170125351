import { useRef, type ReactNode } from 'react';
import { Button } from './button';

interface PickFilesProps {
  /** what the files are, for the field that is not seen */
  readonly label: string;
  readonly className?: string;
  readonly onPick: (files: readonly File[]) => void;
  readonly children: ReactNode;
}

/** A button by which files are chosen; on a phone also taken with its camera. */
export function PickFiles({ label, className = '', onPick, children }: PickFilesProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        multiple
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        onChange={(event) => {
          onPick([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <Button className={className} onClick={() => input.current?.click()}>
        {children}
      </Button>
    </>
  );
}
