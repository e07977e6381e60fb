import { Tabs } from 'radix-ui';
import { useState } from 'react';
import type { Source } from '../../core/papers/paper';
import { InPlace } from '../documents/InPlace';
import { LaidOutPanel } from '../ui/Tabs';

const BODY = 'pt-4 pr-4 pb-6 font-serif text-[1.03rem] leading-[1.58]';

/** What the question is about; several documents are tabs. Each keeps its scroll, whatever is looked at meanwhile. */
export function SourcePane({ source }: { source: Source }) {
  const [shown, setShown] = useState('0');
  const textOf = (tab: number) => ({ target: source.key, name: `tab-${tab}` });
  const only = source.tabs.length === 1 ? source.tabs[0] : undefined;
  if (only)
    return (
      <section aria-label={only.title} className="flex h-full min-h-0 flex-col">
        <h2 className="border-b border-line pb-2 text-[0.95rem] font-semibold">{only.title}</h2>
        <div data-reading="source" className="relative flex min-h-0 flex-1 flex-col">
          <InPlace body={only.body} text={textOf(0)} className={BODY} />
        </div>
      </section>
    );
  return (
    <Tabs.Root value={shown} onValueChange={setShown} className="flex h-full min-h-0 flex-col">
      <Tabs.List className="flex flex-wrap gap-1 border-b border-line">
        {source.tabs.map(({ title }, i) => (
          <Tabs.Trigger
            key={title}
            value={String(i)}
            className="-mb-px min-h-10 rounded-t-lg border border-transparent px-3.5 text-[0.9rem] text-soft data-[state=active]:border-line data-[state=active]:border-b-card data-[state=active]:bg-card data-[state=active]:font-semibold data-[state=active]:text-ink"
          >
            {title}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <div className="relative min-h-0 flex-1">
        {source.tabs.map(({ title, body }, i) => (
          <LaidOutPanel
            key={title}
            name={String(i)}
            shown={shown === String(i)}
            data-reading="source"
            className="flex flex-col"
          >
            <h2 className="sr-only">{title}</h2>
            <InPlace body={body} text={textOf(i)} className={BODY} />
          </LaidOutPanel>
        ))}
      </div>
    </Tabs.Root>
  );
}
