import { Notice } from './Notice';
import type { Loaded } from './useAsync';

/** In place of a whole page: it is still looked up, or could not be. */
export function NotHere({ of }: { readonly of: Exclude<Loaded<unknown>, { readonly state: 'here' }> }) {
  if (of.state === 'loading') return <main className="p-8 text-soft">…</main>;
  return (
    <main className="p-8">
      <Notice tone="trouble">{of.message}</Notice>
    </main>
  );
}
