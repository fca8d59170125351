import { useLocation } from 'react-router';
import { PageNav } from '../ui/page-nav';

const PARTS = [
  ['/production', 'Table'],
  ['/production/line', 'Line'],
  ['/production/stages', 'Stages'],
  ['/production/load', 'Load'],
  ['/production/make', 'To make'],
  ['/production/copy', 'Copy'],
  ['/production/sources', 'Sources'],
] as const;

/** The ways of looking at the same work. What is asked for stays in the address from one to the other. */
export function ProductionNav() {
  const { search } = useLocation();
  const kept = new URLSearchParams(search);
  for (const name of ['open', 'order', 'shown', 'who', 'day']) kept.delete(name);
  const query = kept.size > 0 ? `?${kept}` : '';
  return <PageNav label="Production" parts={PARTS.map(([path, name]) => ({ to: `${path}${query}`, name }))} />;
}
