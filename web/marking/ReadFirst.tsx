import { useEffect, useRef, type ReactNode } from 'react';

/** Something to be read before marking goes on, in the place of the script. */
export function ReadFirst({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  const own = useRef<HTMLElement>(null);
  // Where keys go now; not to a button, which a hurried Enter would press unread.
  useEffect(() => own.current?.focus(), []);
  return (
    <section
      ref={own}
      tabIndex={-1}
      aria-label={title}
      className="m-6 max-w-[46rem] overflow-y-auto rounded-card border border-line bg-card p-6"
    >
      <h2 className="font-serif text-[1.35rem] font-semibold">{title}</h2>
      {children}
    </section>
  );
}
