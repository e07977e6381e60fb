import type { ReactNode } from 'react';
import { t } from './words';

/** What is said in a recording, in its place. */
export function Transcript({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  const name = t('transcript', { title });
  return (
    <section aria-label={name} className="mb-3 rounded-card border border-line bg-card px-4 py-3.5 last:mb-0">
      <h3 className="mb-2 font-sans font-semibold">{name}</h3>
      {children}
    </section>
  );
}
