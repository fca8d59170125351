import type { ReactNode } from 'react';
import { clientColour } from './tags';

/** The frame of pages for people without an account: the client's name and colour, then the page. */
export function VisitorFrame({
  code,
  name,
  colour,
  agency,
  children,
}: {
  code: string;
  name: string;
  colour: number;
  agency?: string;
  children: ReactNode;
}) {
  return (
    <div className="phone-first min-h-screen">
      <header className="border-b border-line bg-card" style={{ borderTop: `5px solid ${clientColour(colour)}` }}>
        <p className="max-w-2xl mx-auto px-4 py-3 flex items-baseline gap-2">
          <span className="font-display text-lg font-semibold">{name}</span>
          <span className="text-muted text-[13px]">{code}</span>
          {agency && <span className="ml-auto text-muted text-[13px]">with {agency}</span>}
        </p>
      </header>
      <main className="max-w-2xl mx-auto px-4 py-5">{children}</main>
    </div>
  );
}

/** A page that has nothing to show but a sentence. */
export function VisitorNote({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <main className="max-w-md mx-auto px-4 py-16 text-center">
      <h1 className="text-2xl mb-2">{title}</h1>
      <div className="text-muted">{children}</div>
    </main>
  );
}
