import { useClients } from '../lib/queries';
import { PageNav } from '../ui/page-nav';

const PARTS = [
  ['/plan/year', 'Year'],
  ['/plan', 'Month'],
  ['/plan/rhythm', 'Rhythm'],
  ['/plan/pillars', 'Pillars'],
  ['/plan/ideas', 'Ideas'],
  ['/plan/questions', 'Questions'],
  ['/plan/campaigns', 'Campaigns'],
  ['/plan/goals', 'Goals'],
  ['/plan/duties', 'Duties'],
] as const;

/** The parts of the station, in the order in which a plan is made. */
export function PlanNav() {
  const { to } = useClients();
  return <PageNav label="Plan" parts={PARTS.map(([path, name]) => ({ to: to(path), name }))} />;
}
