import { Minus, Plus } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Button } from '../ui/Button';
import { words } from '../words';
import { Panel } from './Panel';
import { readingsInView } from './textScopes';
import { figureOf, useAid } from './useAid';

const t = words('lens', {
  title: 'Lens',
  how: 'The lens enlarges the place of the pointer or of the keyboard.',
  power: '{{power}} times as large',
  more: 'Zoom in',
  less: 'Zoom out',
});

const POWERS = [1.5, 2, 3, 4] as const;
/** The copy is made again so long after the page has changed. */
const COPY_AFTER_MS = 150;

/** What must not be on the page twice. */
const NAMES = ['id', 'name', 'for', 'data-text', 'data-reading', 'data-desk', 'data-kit'];

type Scrolled = readonly [element: Element, top: number, left: number];

/** What fields hold is no part of their mark-up. */
function fill(one: Element, twin: Element): void {
  if (one instanceof HTMLCanvasElement && twin instanceof HTMLCanvasElement)
    twin.getContext('2d')?.drawImage(one, 0, 0);
  else if (one instanceof HTMLTextAreaElement) (twin as HTMLTextAreaElement).value = one.value;
  else if (one instanceof HTMLSelectElement) (twin as HTMLSelectElement).value = one.value;
  else if (one instanceof HTMLInputElement && one.type !== 'file') {
    (twin as HTMLInputElement).value = one.value;
    (twin as HTMLInputElement).checked = one.checked;
  }
}

/** A copy of the desk for the eye alone; questions that only wait out of view are left out. */
function copyOf(node: Node, scrolled: Scrolled[]): Node {
  const copy = node.cloneNode(false);
  if (!(node instanceof Element) || !(copy instanceof Element)) return copy;
  for (const name of NAMES) copy.removeAttribute(name);
  if (node.hasAttribute('data-waiting')) return copy;
  for (const child of node.childNodes) copy.appendChild(copyOf(child, scrolled));
  fill(node, copy);
  if (node.scrollTop !== 0 || node.scrollLeft !== 0) scrolled.push([copy, node.scrollTop, node.scrollLeft]);
  return copy;
}

/** Keeps the glass filled: with a copy of the desk, over the place of the pointer or of the field in use. */
function useGlass(power: number): React.RefObject<HTMLDivElement | null> {
  const glass = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const desk = document.querySelector<HTMLElement>('[data-desk]')!;
    const own = glass.current!;
    let copy: HTMLElement | null = null;
    const [reading] = readingsInView();
    const start = (reading ?? desk).getBoundingClientRect();
    // What is read first, until the pointer or the keys are somewhere.
    let at = { x: start.x + start.width / 3, y: start.y + 48 };
    let frame = 0;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const show = () => {
      if (!copy) return;
      const box = desk.getBoundingClientRect();
      const across = own.clientWidth / 2 - (at.x - box.left) * power;
      const down = own.clientHeight / 2 - (at.y - box.top) * power;
      copy.style.transform = `translate(${across}px, ${down}px) scale(${power})`;
    };
    const follow = (to: typeof at) => {
      at = to;
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(show);
    };
    const make = () => {
      // A copy begins at the top of everything: it is scrolled when it is on the page.
      const scrolled: Scrolled[] = [];
      copy = copyOf(desk, scrolled) as HTMLElement;
      const { width, height } = desk.getBoundingClientRect();
      copy.style.cssText += `;position:absolute;left:0;top:0;transform-origin:0 0;width:${width}px;height:${height}px;pointer-events:none`;
      own.replaceChildren(copy);
      for (const [element, top, left] of scrolled) element.scrollTo(left, top);
      show();
    };
    const soon = () => {
      clearTimeout(timer);
      timer = setTimeout(make, COPY_AFTER_MS);
    };
    const byPointer = (event: PointerEvent) => {
      if (
        event.target instanceof Element &&
        desk.contains(event.target) &&
        !event.target.closest('[data-kit]')
      )
        follow({ x: event.clientX, y: event.clientY });
    };
    const byFocus = () => {
      const field = document.activeElement;
      if (!(field instanceof HTMLElement) || !desk.contains(field)) return;
      const { x, y, width, height } = field.getBoundingClientRect();
      follow({ x: x + Math.min(width / 2, own.clientWidth / power / 2), y: y + height / 2 });
    };
    // The lens itself is seen first: a copy of the desk takes longer than opening it.
    const first = requestAnimationFrame(() => (timer = setTimeout(make)));
    const observer = new MutationObserver(soon);
    observer.observe(desk, { childList: true, subtree: true, characterData: true, attributes: true });
    document.addEventListener('pointermove', byPointer);
    document.addEventListener('focusin', byFocus);
    document.addEventListener('input', soon);
    desk.addEventListener('scroll', soon, true);
    return () => {
      clearTimeout(timer);
      cancelAnimationFrame(first);
      cancelAnimationFrame(frame);
      observer.disconnect();
      document.removeEventListener('pointermove', byPointer);
      document.removeEventListener('focusin', byFocus);
      document.removeEventListener('input', soon);
      desk.removeEventListener('scroll', soon, true);
    };
  }, [power]);
  return glass;
}

/** A magnifier that lies where it is put and shows the place of the pointer or of the keys: it never covers what it shows. */
export function Lens() {
  const { setting, set } = useAid('lens');
  const power = figureOf(setting, 'power', 2);
  const glass = useGlass(power);
  const at = POWERS.findIndex((one) => one >= power);
  const to = (step: number) => set({ power: POWERS[at + step] ?? power });
  return (
    <Panel
      id="lens"
      title={t('title')}
      first={{ x: window.innerWidth - 480, y: 84, width: 440, height: 250 }}
      least={{ width: 220, height: 170 }}
    >
      <div ref={glass} aria-hidden inert className="relative min-h-28 flex-1 overflow-hidden bg-paper" />
      <div className="flex flex-wrap items-center gap-1.5 border-t border-line px-2 py-1">
        <Button look="quiet" aria-label={t('less')} disabled={at <= 0} onClick={() => to(-1)}>
          <Minus aria-hidden className="size-4" />
        </Button>
        <span role="status" className="text-[0.88rem]">
          {t('power', { power })}
        </span>
        <Button look="quiet" aria-label={t('more')} disabled={at >= POWERS.length - 1} onClick={() => to(1)}>
          <Plus aria-hidden className="size-4" />
        </Button>
        <span className="min-w-0 flex-1 text-right text-[0.82rem] text-soft">{t('how')}</span>
      </div>
    </Panel>
  );
}
