import { useLocation } from 'react-router';
import { manages } from '../lib/feature';
import { useSession } from '../lib/queries';
import { PageNav } from '../ui/page-nav';

/** Address, name, and whether it is for those who manage alone. */
const PARTS = [
  ['/production', 'Table', false],
  ['/production/sheet', 'Sheet', true],
  ['/production/line', 'Line', true],
  ['/production/stages', 'Stages', true],
  ['/production/load', 'Load', true],
  ['/production/make', 'To make', false],
  ['/production/copy', 'Copy', true],
  ['/production/sources', 'Sources', true],
  ['/production/library', 'Library', false],
] as const;

/** What of an address is one page's own. */
const OWN = ['open', 'order', 'shown', 'who', 'day', 'words', 'within', 'kept', 'columns', 'by', 'down', 'group', 'all'];

/** The ways of looking at the same work. What is asked for stays in the address from one to the other. */
export function ProductionNav() {
  const { search } = useLocation();
  const session = useSession();
  const kept = new URLSearchParams(search);
  for (const name of OWN) kept.delete(name);
  const query = kept.size > 0 ? `?${kept}` : '';
  const parts = PARTS.filter(([, , isManagers]) => manages(session) || !isManagers);
  return (
    <PageNav label="Production" parts={parts.map(([path, name]) => ({ to: `${path}${query}`, name, holds: path !== '/production' }))} />
  );
}
