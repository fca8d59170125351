import { useClients } from '../../lib/queries';
import { PageNav } from '../../ui/page-nav';

/** What the library holds: what was made, and what is kept to be taken in. */
export function LibraryNav() {
  const { to } = useClients();
  return (
    <PageNav
      label="Library"
      parts={[
        { to: to('/production/library'), name: 'Pieces' },
        { to: to('/production/library/files'), name: 'Files' },
      ]}
    />
  );
}
