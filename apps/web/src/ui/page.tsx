import type { ReactNode } from 'react';

interface PageHeadProps {
  readonly title: string;
  readonly note?: ReactNode;
  /** the pages of the station: in the same place on each of them, whatever else stands in the head */
  readonly nav?: ReactNode;
  /** what turns the title to another */
  readonly turn?: ReactNode;
  readonly children?: ReactNode;
}

/** The heading of a page, with what can be done on the right. */
export function PageHead({ title, note, nav, turn, children }: PageHeadProps) {
  return (
    <header className="mb-4">
      {nav && <div className="flex mb-3">{nav}</div>}
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h1 className="text-2xl leading-tight">{title}</h1>
        {turn && <div className="self-center">{turn}</div>}
        {note && <p className="text-muted">{note}</p>}
        {children && <div className="ml-auto flex flex-wrap gap-2 min-w-0 max-w-full">{children}</div>}
      </div>
    </header>
  );
}

/** What a list says when nothing is in it, and what to do next. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="card px-6 py-10 text-center">
      <p className="font-display font-semibold text-lg">{title}</p>
      {children && <div className="text-muted mt-1">{children}</div>}
    </div>
  );
}

/** Shown while the first answer is on its way. */
export function Loading() {
  return (
    <p role="status" className="text-muted p-8 text-center">
      Loading…
    </p>
  );
}

/** A failure in place of what could not be shown. */
export function Failed({ message, onRetry }: { message: string; onRetry: () => void }) {
  return (
    <div role="alert" className="card border-rhubarb px-6 py-8 text-center">
      <p className="mb-3">{message}</p>
      <button type="button" onClick={onRetry} className="underline text-pine min-h-8">
        Try again
      </button>
    </div>
  );
}
