import { useState } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { Pages, type LayoutProps } from './Pages';
import { SourcePane } from './SourcePane';
import { t } from './words';

function InTabs({ sheet, inView }: Omit<LayoutProps, 'narrow'>) {
  const [side, setSide] = useState<'source' | 'answer'>('answer');
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div role="tablist" className="flex border-b border-line">
        {(['source', 'answer'] as const).map((name) => (
          <button
            key={name}
            type="button"
            role="tab"
            aria-selected={side === name}
            onClick={() => setSide(name)}
            className={`min-h-11 flex-1 ${side === name ? 'border-b-3 border-kelp font-semibold' : 'text-soft'}`}
          >
            {t(name)}
          </button>
        ))}
      </div>
      <div className={`min-h-0 flex-1 px-4 pt-3 ${side === 'source' ? '' : 'hidden'}`}>
        <SourcePane source={inView.source!} />
      </div>
      <div className={`min-h-0 flex-1 ${side === 'answer' ? '' : 'hidden'}`}>
        <Pages sheet={sheet} inView={inView} className="px-4 pt-3" />
      </div>
    </div>
  );
}

function SideBySide({ sheet, inView }: Omit<LayoutProps, 'narrow'>) {
  return (
    <Group orientation="horizontal" className="min-h-0 flex-1 px-5">
      <Panel defaultSize="50%" minSize="22%" className="min-h-0 pl-2">
        <SourcePane source={inView.source!} />
      </Panel>
      <Separator
        aria-label={t('divider')}
        className="group relative mx-1 w-3 cursor-col-resize before:absolute before:inset-y-2 before:left-1/2 before:w-px before:bg-line"
      >
        <span className="absolute top-1/2 left-1/2 h-11 w-[7px] -translate-1/2 rounded bg-[#c9c3b4] group-hover:bg-edge" />
      </Separator>
      <Panel minSize="30%" className="min-h-0">
        <Pages sheet={sheet} inView={inView} className="px-3 pt-1 pb-6" />
      </Panel>
    </Group>
  );
}

/** A source and what is asked of it: side by side, or as two tabs where the width is not enough for both. */
export function BesideSource({ tabs, ...layout }: Omit<LayoutProps, 'narrow'> & { readonly tabs: boolean }) {
  return tabs ? <InTabs {...layout} /> : <SideBySide {...layout} />;
}
