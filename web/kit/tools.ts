import {
  Calculator,
  DraftingCompass,
  Highlighter,
  Keyboard,
  PencilLine,
  RectangleHorizontal,
  Ruler,
  Volume2,
  ZoomIn,
  type LucideIcon,
} from 'lucide-react';
import type { ComponentType } from 'react';
import type { AidName } from '../../core/kit/aids';
import { ComponentShelf } from '../ui/ComponentShelf';

/** The panel of each aid, and of the list of keys; fetched behind the first question. */
const loaders = {
  'reading-slot': async () => (await import('./ReadingSlot')).ReadingSlot,
  lens: async () => (await import('./Lens')).Lens,
  highlight: async () => (await import('./Highlighter')).Highlighter,
  'rough-work': async () => (await import('./RoughWork')).RoughWork,
  calculator: async () => (await import('./Calculator')).BasicCalculator,
  'scientific-calculator': async () => (await import('./Calculator')).ScientificCalculator,
  ruler: async () => (await import('./Ruler')).Ruler,
  protractor: async () => (await import('./Protractor')).Protractor,
  'read-aloud': async () => (await import('./ReadAloud')).ReadAloud,
  keys: async () => (await import('./Keys')).Keys,
} satisfies { readonly [T in AidName | 'keys']?: () => Promise<ComponentType<never>> };

export type PanelName = keyof typeof loaders;

export const panels = new ComponentShelf<PanelName, object>((name) => loaders[name]());

/** Under this the place of a tool is kept, and it has its name: both calculators are one. */
export type ToolId = Exclude<PanelName, 'scientific-calculator'>;

export interface Tool {
  readonly id: ToolId;
  readonly panel: PanelName;
  readonly icon: LucideIcon;
}

const tool = (id: ToolId, icon: LucideIcon, panel: PanelName = id): Tool => ({ id, icon, panel });

/** What an aid is at the desk; those of a question's own text or options have no tool. */
const TOOLS: Readonly<Partial<Record<AidName, Tool>>> = {
  'reading-slot': tool('reading-slot', RectangleHorizontal),
  lens: tool('lens', ZoomIn),
  highlight: tool('highlight', Highlighter),
  'rough-work': tool('rough-work', PencilLine),
  calculator: tool('calculator', Calculator),
  'scientific-calculator': tool('calculator', Calculator, 'scientific-calculator'),
  ruler: tool('ruler', Ruler),
  protractor: tool('protractor', DraftingCompass),
  'read-aloud': tool('read-aloud', Volume2),
};

const keysTool = tool('keys', Keyboard);

/** The tools of a section, each once: where an arrangement brings a second calculator, the scientific one is there. */
export function toolsFor(aids: readonly AidName[]): Tool[] {
  const own = aids.includes('scientific-calculator') ? aids.filter((name) => name !== 'calculator') : aids;
  return [...own.flatMap((name) => TOOLS[name] ?? []), keysTool];
}
