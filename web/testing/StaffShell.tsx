import '../../core/kinds/candidateKinds';
import { QueryClientProvider } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { makeQueryClient } from '../staff/queries';

/** What stands around every staff page, without the page's column. */
export function StaffShell({ children }: { readonly children: ReactNode }) {
  const [client] = useState(makeQueryClient);
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}
