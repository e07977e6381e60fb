import { Navigate } from 'react-router';
import { words } from '../words';
import { areasOf } from './StaffFrame';
import { useStaff } from './staffContext';

const t = words('staffHome', { nothing: 'There is nothing for your role here yet.' });

/** Leads to the first area of one's roles. */
export function StaffHome() {
  const [first] = areasOf(useStaff());
  return first ? <Navigate to={first.to} replace /> : <main className="p-8 text-soft">{t('nothing')}</main>;
}
