import type { ReactNode } from 'react';
import { Mark } from './mark';

/** The page of who is not signed in: one card under the mark. */
export function EntryCard({ title, wide = false, children }: { title: string; wide?: boolean; children: ReactNode }) {
  return (
    <main className="min-h-screen grid place-items-center bg-band p-4">
      <div className={`card w-full ${wide ? 'max-w-3xl' : 'max-w-sm'} p-7`}>
        <div className="flex items-center gap-2.5 mb-5">
          <span className="bg-band rounded-md p-1.5">
            <Mark size={28} />
          </span>
          <h1 className="text-2xl">{title}</h1>
        </div>
        {children}
      </div>
    </main>
  );
}
