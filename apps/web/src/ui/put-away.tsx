interface PutAwayProps {
  readonly items: readonly { readonly id: string; readonly name: string }[];
  /** what the list is called, without how many there are */
  readonly title: string;
  /** what brings one back, such as *take back* */
  readonly action: string;
  readonly onBack: (id: string) => void;
}

/** What was put away and can come back; nothing where there is none. */
export function PutAway({ items, title, action, onBack }: PutAwayProps) {
  if (items.length === 0) return null;
  return (
    <details className="text-[13px]">
      <summary className="cursor-pointer min-h-6">
        {title} ({items.length})
      </summary>
      <ul className="flex flex-wrap gap-x-4">
        {items.map(({ id, name }) => (
          <li key={id}>
            {name}{' '}
            <button type="button" className="text-pine underline min-h-6" aria-label={`${action}: ${name}`} onClick={() => onBack(id)}>
              {action}
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
