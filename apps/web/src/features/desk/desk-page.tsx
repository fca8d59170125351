import { useSession } from '../../lib/queries';
import { MyStepsPage } from '../production/my-steps-page';
import { ManagerDesk } from './manager-desk';

/** The start page: the reckoning for those who manage, the own steps for those who make. */
export function DeskPage() {
  const { role } = useSession();
  return role === 'lead' || role === 'manager' ? <ManagerDesk /> : <MyStepsPage />;
}
