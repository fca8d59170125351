import { useLocation, useNavigate } from 'react-router';
import { useSearch } from './use-search';

/** The name under which the address tells what is open on a page. */
const OPEN = 'open';

export interface Opened {
  /** what is open; null: nothing */
  readonly opened: string | null;
  readonly open: (name: string) => void;
  readonly close: () => void;
}

/**
 * Which dialog of a page is open, held by its address (`?open=accept`): it is there after a reload, can be led to by a link, and going back
 * closes it. Whoever leaves the page out of a dialog replaces its place in the history, so that going back does not open it again.
 */
export function useOpened(): Opened {
  const { search, put } = useSearch();
  const location = useLocation();
  const navigate = useNavigate();
  return {
    opened: search.get(OPEN),
    open: (name) => put({ [OPEN]: name }, { state: { openedHere: true } }),
    close: () => {
      if ((location.state as { openedHere?: boolean } | null)?.openedHere)
        void navigate(-1); // as `open` left it
      else put({ [OPEN]: null }, { replace: true });
    },
  };
}
