import type { ReactNode } from 'react';

/** A part of what belongs to an idea, under its name. */
export const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title}>
    <h3 className="text-[15px] mb-1">{title}</h3>
    {children}
  </section>
);
