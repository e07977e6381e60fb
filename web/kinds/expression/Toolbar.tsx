import { ChevronDown, ChevronUp } from 'lucide-react';
import { useState } from 'react';
import type { Tool } from '../../../core/kinds/expression/response';
import { AT_ONCE, BUTTONS, type Button } from './tools';
import { t } from './words';

type Name = Parameters<typeof t>[0];

const KEY =
  'inline-grid min-h-11 min-w-11 place-items-center rounded-control border border-line bg-card px-2 text-[1rem] hover:border-edge desk:min-h-9 desk:min-w-9';

function Group({ tool, onPut }: { readonly tool: Tool; readonly onPut: (latex: string) => void }) {
  return (
    <div role="group" aria-label={t(tool)} className="flex flex-wrap gap-1">
      {BUTTONS[tool].map(({ shows, name, puts }: Button) => (
        <button
          key={name}
          type="button"
          title={t(name as Name)}
          aria-label={t(name as Name)}
          // The caret stays where it is.
          onPointerDown={(event) => event.preventDefault()}
          onClick={() => onPut(puts)}
          className={KEY}
        >
          {shows}
        </button>
      ))}
    </div>
  );
}

/** The signs that an author has chosen, by purpose; the long groups unfold one at a time. */
export function Toolbar({
  tools,
  onPut,
}: {
  readonly tools: readonly Tool[];
  readonly onPut: (latex: string) => void;
}) {
  const [open, setOpen] = useState<Tool | null>(null);
  const atOnce = tools.filter((tool) => AT_ONCE.includes(tool));
  const folded = tools.filter((tool) => !AT_ONCE.includes(tool));
  return (
    <div role="group" aria-label={t('tools')} className="mt-2 space-y-2">
      <div className="flex flex-wrap gap-x-3 gap-y-1.5">
        {atOnce.map((tool) => (
          <Group key={tool} tool={tool} onPut={onPut} />
        ))}
        {folded.map((tool) => {
          const Icon = open === tool ? ChevronUp : ChevronDown;
          return (
            <button
              key={tool}
              type="button"
              aria-expanded={open === tool}
              onClick={() => setOpen(open === tool ? null : tool)}
              className="inline-flex min-h-11 items-center gap-1 rounded-control px-2 text-[0.92rem] hover:bg-shade desk:min-h-9"
            >
              {t(tool)} <Icon aria-hidden className="size-4" />
            </button>
          );
        })}
      </div>
      {open && <Group tool={open} onPut={onPut} />}
    </div>
  );
}
