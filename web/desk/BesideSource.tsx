import { Columns2, PanelLeft, PanelRight, type LucideIcon } from 'lucide-react';
import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { InView } from '../media/inView';
import { Guard } from '../ui/Guard';
import { LaidOutPanel, TabStrip } from '../ui/Tabs';
import { useNarrow } from '../ui/useNarrow';
import { useDesk } from './DeskContext';
import { Pages, type LayoutProps } from './Pages';
import { PhraseScope } from './PhraseScope';
import { SourcePane } from './SourcePane';
import { t } from './words';

type Layout = Omit<LayoutProps, 'narrow'>;

const SIDES = ['source', 'answer'] as const;

/** Whether the question begins with reading: on a phone, until something of it is answered. */
function useReadsFirst({ item }: Layout['inView']): boolean {
  const narrow = useNarrow();
  const state = useDesk((s) => s.progress.find(({ question }) => question.item === item)!.state);
  return narrow && (state === 'unopened' || state === 'looked at');
}

function InTabs({ sheet, inView }: Layout) {
  const readsFirst = useReadsFirst(inView);
  const [side, setSide] = useState<(typeof SIDES)[number]>(readsFirst ? 'source' : 'answer');
  return (
    <Tabs.Root
      value={side}
      onValueChange={(name) => setSide(name as typeof side)}
      className="flex min-h-0 flex-1 flex-col"
    >
      <TabStrip names={SIDES} titleOf={(name) => t(name)} />
      <div className="relative min-h-0 flex-1">
        <LaidOutPanel name="source" shown={side === 'source'} className="px-4 pt-3">
          <InView value={side === 'source'}>
            <Guard>
              <SourcePane source={inView.source!} />
            </Guard>
          </InView>
        </LaidOutPanel>
        <LaidOutPanel name="answer" shown={side === 'answer'}>
          <Pages sheet={sheet} inView={inView} className="px-4 pt-3" />
        </LaidOutPanel>
      </div>
    </Tabs.Root>
  );
}

type Shown = 'both' | 'source' | 'answer';

const WAYS: readonly (readonly [Shown, LucideIcon])[] = [
  ['source', PanelLeft],
  ['both', Columns2],
  ['answer', PanelRight],
];

/** Which of the two sides is shown; each can have the whole width. */
function Sides({ shown, onShow }: { readonly shown: Shown; readonly onShow: (shown: Shown) => void }) {
  return (
    <div role="group" aria-label={t('sides')} className="flex justify-end gap-1 px-7 pb-1">
      {WAYS.map(([way, Icon]) => (
        <button
          key={way}
          type="button"
          aria-pressed={shown === way}
          onClick={() => onShow(way)}
          className={`inline-flex min-h-8 items-center gap-1.5 rounded-control px-2 text-[0.82rem] ${shown === way ? 'bg-wash text-kelp' : 'text-soft hover:bg-shade'}`}
        >
          <Icon aria-hidden className="size-4" /> {t(`side ${way}`)}
        </button>
      ))}
    </div>
  );
}

/** The library has a box of its own around each side: the one that is not shown is taken out by its place. */
const OUT: Record<Shown, string> = {
  both: '',
  source: '[&>[data-panel]:last-child]:hidden!',
  answer: '[&>[data-panel]:first-child]:hidden!',
};

/** What is inside scrolls and is clipped by itself; clipped twice, it counts as hidden for aids that look at the page. */
const UNCLIPPED = { overflow: 'visible' } as const;

function SideBySide({ sheet, inView }: Layout) {
  const [shown, setShown] = useState<Shown>('both');
  return (
    <>
      <Sides shown={shown} onShow={setShown} />
      <Group orientation="horizontal" style={UNCLIPPED} className={`min-h-0 flex-1 px-5 ${OUT[shown]}`}>
        <Panel defaultSize="50%" minSize="22%" className="min-h-0 pl-2" style={UNCLIPPED}>
          <InView value={shown !== 'answer'}>
            <Guard>
              <SourcePane source={inView.source!} />
            </Guard>
          </InView>
        </Panel>
        <Separator
          aria-label={t('divider')}
          className={`group relative mx-1 w-3 cursor-col-resize before:absolute before:inset-y-2 before:left-1/2 before:w-px before:bg-line ${shown === 'both' ? '' : 'hidden!'}`}
        >
          <span className="absolute top-1/2 left-1/2 h-11 w-[7px] -translate-1/2 rounded bg-edge/60 group-hover:bg-edge" />
        </Separator>
        <Panel minSize="30%" className="min-h-0" style={UNCLIPPED}>
          <Pages sheet={sheet} inView={inView} className="px-3 pt-1 pb-6" />
        </Panel>
      </Group>
    </>
  );
}

/** A source and what is asked of it: side by side, or as two tabs where the width is not enough for both. */
export function BesideSource({ tabs, ...layout }: Layout & { readonly tabs: boolean }) {
  return (
    <PhraseScope inView={layout.inView}>
      {tabs ? <InTabs {...layout} /> : <SideBySide {...layout} />}
    </PhraseScope>
  );
}
