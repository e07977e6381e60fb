import { createContext, useContext } from 'react';
import type { StaffMember } from '../../core/rounds/api';

export const StaffContext = createContext<StaffMember | null>(null);

export function useStaff(): StaffMember {
  const member = useContext(StaffContext);
  if (!member) throw new Error('a staff page stands outside the staff frame');
  return member;
}
