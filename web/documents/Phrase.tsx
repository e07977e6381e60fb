import { useContext, type ReactNode } from 'react';
import { PhrasesInUse } from './phrases';
import { useDragPhrase } from './useDragPhrase';

/** A phrase of a source: words like others, until a part of the question works with them. */
export function Phrase({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  const use = useContext(PhrasesInUse);
  const drag = useDragPhrase(use?.onDrop && ((at) => use.onDrop!(name, at)));
  if (!use) return <span data-phrase={name}>{children}</span>;
  const chosen = use.chosen.has(name);
  const press = () => use.onPress(name);
  return (
    // A span, since a phrase wraps over lines as a button cannot.
    <span
      data-phrase={name}
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      onClick={press}
      onPointerDown={drag}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        press();
      }}
      className={`cursor-pointer rounded-[3px] underline decoration-2 underline-offset-4 ${chosen ? 'bg-wash font-semibold decoration-kelp' : 'decoration-edge decoration-dashed hover:bg-shade'}`}
    >
      {children}
    </span>
  );
}
