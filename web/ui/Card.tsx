import type { ReactNode } from 'react';

/** A part of a staff page with a title of its own. */
export function Card({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section aria-label={title} className="rounded-card border border-line bg-card p-4">
      <h2 className="mb-1.5 font-semibold">{title}</h2>
      {children}
    </section>
  );
}
