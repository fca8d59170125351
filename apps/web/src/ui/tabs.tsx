import { Tabs as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

export interface Tab {
  readonly id: string;
  readonly title: ReactNode;
  readonly content: ReactNode;
}

/** Panels of which one is shown. */
export function Tabs({
  label,
  tabs,
  value,
  onChange,
}: {
  label: string;
  tabs: readonly Tab[];
  value: string;
  onChange: (id: string) => void;
}) {
  return (
    <Radix.Root value={value} onValueChange={onChange}>
      <Radix.List aria-label={label} className="flex flex-wrap gap-1 border-b border-line mb-3">
        {tabs.map((tab) => (
          <Radix.Trigger
            key={tab.id}
            value={tab.id}
            className="inline-flex items-center gap-1.5 px-2 min-h-8 -mb-px border-b-2 border-transparent text-muted font-medium data-[state=active]:border-pine data-[state=active]:text-ink"
          >
            {tab.title}
          </Radix.Trigger>
        ))}
      </Radix.List>
      {tabs.map((tab) => (
        <Radix.Content key={tab.id} value={tab.id}>
          {tab.content}
        </Radix.Content>
      ))}
    </Radix.Root>
  );
}
