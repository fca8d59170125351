import { useSearchParams, type NavigateOptions } from 'react-router';

type Changes = Readonly<Record<string, string | null>>;

/** A search with some of its values put, or taken out by null. */
export function withChanges(search: string, changes: Changes): URLSearchParams {
  const next = new URLSearchParams(search);
  for (const [name, value] of Object.entries(changes))
    if (value === null) next.delete(name);
    else next.set(name, value);
  return next;
}

/** What stands in the address now, whatever was drawn last. */
export const searchNow = (): URLSearchParams => new URLSearchParams(window.location.search);

/**
 * What the address asks for, and a way to change it. A change counts on what stands in the address now, not on what was drawn last: of two in
 * quick succession the second keeps the first.
 */
export function useSearch(): { search: URLSearchParams; put: (changes: Changes, options?: NavigateOptions) => void } {
  const [search, setSearch] = useSearchParams();
  return { search, put: (changes, options) => setSearch(withChanges(window.location.search, changes), options) };
}
