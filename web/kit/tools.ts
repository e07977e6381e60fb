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
import { lazy, type ComponentType, type LazyExoticComponent } from 'react';
import type { AidName } from '../../core/kit/aids';

export type ToolId =
  | 'reading-slot'
  | 'lens'
  | 'highlight'
  | 'rough-work'
  | 'calculator'
  | 'ruler'
  | 'protractor'
  | 'read-aloud'
  | 'keys';

export interface Tool {
  /** Under this its place is kept, and it has its name. */
  readonly id: ToolId;
  readonly icon: LucideIcon;
  readonly Panel: LazyExoticComponent<ComponentType>;
  readonly load: () => Promise<unknown>;
}

function tool<M>(
  id: ToolId,
  icon: LucideIcon,
  load: () => Promise<M>,
  pick: (module: M) => ComponentType,
): Tool {
  return { id, icon, load, Panel: lazy(async () => ({ default: pick(await load()) })) };
}

const calculator = () => import('./Calculator');

/** What an aid is at the desk; those of a question's own text or options have no tool. */
const TOOLS: Readonly<Partial<Record<AidName, Tool>>> = {
  'reading-slot': tool(
    'reading-slot',
    RectangleHorizontal,
    () => import('./ReadingSlot'),
    (m) => m.ReadingSlot,
  ),
  lens: tool(
    'lens',
    ZoomIn,
    () => import('./Lens'),
    (m) => m.Lens,
  ),
  highlight: tool(
    'highlight',
    Highlighter,
    () => import('./Highlighter'),
    (m) => m.Highlighter,
  ),
  'rough-work': tool(
    'rough-work',
    PencilLine,
    () => import('./RoughWork'),
    (m) => m.RoughWork,
  ),
  calculator: tool('calculator', Calculator, calculator, (m) => m.BasicCalculator),
  'scientific-calculator': tool('calculator', Calculator, calculator, (m) => m.ScientificCalculator),
  ruler: tool(
    'ruler',
    Ruler,
    () => import('./Ruler'),
    (m) => m.Ruler,
  ),
  protractor: tool(
    'protractor',
    DraftingCompass,
    () => import('./Protractor'),
    (m) => m.Protractor,
  ),
  'read-aloud': tool(
    'read-aloud',
    Volume2,
    () => import('./ReadAloud'),
    (m) => m.ReadAloud,
  ),
};

export const keysTool: Tool = tool(
  'keys',
  Keyboard,
  () => import('./Keys'),
  (m) => m.Keys,
);

/** The tools of a section, each once: where an arrangement brings a second calculator, the scientific one is there. */
export function toolsFor(aids: readonly AidName[]): Tool[] {
  const own = aids.includes('scientific-calculator') ? aids.filter((name) => name !== 'calculator') : aids;
  return own.flatMap((name) => TOOLS[name] ?? []);
}
