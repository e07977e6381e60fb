import { Eraser, Trash2 } from 'lucide-react';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { tints, type Highlight, type Highlights, type Tint } from '../../core/kit/notes';
import { Button } from '../ui/Button';
import { useKit } from './KitContext';
import { Panel } from './Panel';
import { canDraw } from './drawHighlights';
import {
  nameOf,
  piecesOf,
  rangeIn,
  stretchIn,
  stretchOf,
  textIn,
  textRootOf,
  type Stretch,
} from './textScopes';
import { stepTo, wholeWords, widened } from './stretches';
import { useHighlighting } from './useHighlights';
import { words } from '../words';

const t = words('highlight', {
  title: 'Highlight',
  how: 'Select words, then choose a colour.',
  'tint solid': 'Yellow',
  'tint dotted': 'Blue',
  'tint dashed': 'Violet',
  'name solid': 'Yellow, solid line',
  'name dotted': 'Blue, dotted line',
  'name dashed': 'Violet, dashed line',
  erase: 'Clear',
  byKeys: 'Choose words by keys',
  sentenceBack: 'Previous sentence',
  sentence: 'Next sentence',
  word: 'Next word',
  wordBack: 'Previous word',
  more: 'One word more',
  less: 'One word less',
  chosen: 'Chosen: {{text}}',
  list_one: '{{count}} highlight here',
  list_other: '{{count}} highlights here',
  remove: 'Remove the highlight: {{text}}',
  clearAll: 'Clear all',
  ownWriting: 'Your own writing cannot be highlighted, only the texts of the test.',
  cannot: 'This browser cannot show highlights in the text. They are saved in the list.',
  full: 'This text has the largest number of highlights. Clear some first.',
});

const LOOKS: Record<Tint, string> = {
  solid: 'bg-[#ffe9a8] text-[#1b2733] decoration-[#b98500] decoration-solid',
  dotted: 'bg-[#d8e8f7] text-[#1b2733] decoration-[#2f5d8c] decoration-dotted',
  dashed: 'bg-[#efdff0] text-[#1b2733] decoration-[#6b4c86] decoration-dashed',
};

const isOwnWriting = (selection: Selection | null): boolean =>
  selection !== null &&
  !selection.isCollapsed &&
  selection.anchorNode?.parentElement?.closest('[contenteditable=true], input, textarea') != null;

/** The last selection in a text of the desk: pressing a button of the panel takes it away on some devices. */
function useSelected() {
  const [stretch, setStretch] = useState<Stretch | null>(null);
  /** What is selected is in an answer: that cannot be highlighted. */
  const [own, setOwn] = useState(false);
  useEffect(() => {
    const look = () => {
      const selection = document.getSelection();
      const found = selection && selection.rangeCount > 0 ? stretchOf(selection.getRangeAt(0)) : null;
      if (found) setStretch(wholeWords(found));
      setOwn(isOwnWriting(selection));
    };
    look();
    document.addEventListener('selectionchange', look);
    return () => document.removeEventListener('selectionchange', look);
  }, []);
  return { stretch, setStretch, own };
}

function showChosen({ root, start, end }: Stretch): void {
  const range = rangeIn(root, start, end);
  if (!range) return;
  const selection = document.getSelection()!;
  selection.removeAllRanges();
  selection.addRange(range);
  range.startContainer.parentElement?.scrollIntoView({ block: 'nearest' });
}

function ByKeys({
  stretch,
  onChoose,
}: {
  readonly stretch: Stretch | null;
  readonly onChoose: (next: Stretch | null) => void;
}) {
  const choose = (next: Stretch | null) => {
    onChoose(next);
    if (next) showChosen(next);
  };
  const acts = [
    ['sentenceBack', () => stepTo(stretch, 'sentence', -1)],
    ['sentence', () => stepTo(stretch, 'sentence', 1)],
    ['wordBack', () => stepTo(stretch, 'word', -1)],
    ['word', () => stepTo(stretch, 'word', 1)],
    ['less', () => widened(stretch, -1)],
    ['more', () => widened(stretch, 1)],
  ] as const;
  return (
    <details>
      <summary className="min-h-8 py-1 text-[0.9rem] text-slate">{t('byKeys')}</summary>
      <div className="grid grid-cols-2 gap-1.5 pt-1">
        {acts.map(([name, next]) => (
          <Button key={name} onClick={() => choose(next())} className="text-[0.88rem]">
            {t(name)}
          </Button>
        ))}
      </div>
    </details>
  );
}

function List() {
  const { all, set } = useHighlighting();
  const question = useKit((s) => s.paper.questions[s.index]!);
  // A source may be kept under the name of its own question: each highlight counts once.
  const targets = [...new Set([question.item, ...(question.source ? [question.source.key] : [])])];
  const rows = targets.flatMap((target) =>
    Object.entries(all[target] ?? {}).flatMap(([name, own]) => own.map((one) => ({ target, name, one }))),
  );
  if (rows.length === 0) return null;
  const remove = (target: string, name: string, gone: Highlight) =>
    set(target, { ...all[target], [name]: (all[target]?.[name] ?? []).filter((one) => one !== gone) });
  return (
    <details open>
      <summary className="min-h-8 py-1 text-[0.9rem] text-slate">{t('list', { count: rows.length })}</summary>
      <div className="flex justify-end">
        <Button
          look="quiet"
          className="text-[0.88rem]"
          onClick={() => targets.forEach((one) => set(one, {}))}
        >
          {t('clearAll')}
        </Button>
      </div>
      <ul className="space-y-1">
        {rows.map(({ target, name, one }) => (
          <li key={`${target} ${name} ${one.start}`} className="flex items-center gap-2">
            <span
              className={`min-w-0 flex-1 truncate rounded px-1 text-[0.92rem] underline decoration-2 ${LOOKS[one.tint]}`}
            >
              {one.quote}
            </span>
            <Button
              look="quiet"
              aria-label={t('remove', { text: one.quote.slice(0, 60) })}
              onClick={() => remove(target, name, one)}
            >
              <Trash2 aria-hidden className="size-4" />
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** The highlight that a place of a text is in; null where there is none. */
function highlightAt(all: Readonly<Record<string, Highlights>>, node: Node, offset: number): Stretch | null {
  const root = textRootOf(node);
  const of = root && nameOf(root);
  if (!root || !of) return null;
  const before = document.createRange();
  before.setStart(root, 0);
  before.setEnd(node, offset);
  const place = stretchIn(root, before)?.end ?? 0;
  const found = (all[of.target]?.[of.name] ?? []).find(({ start, end }) => start <= place && place <= end);
  return found ? { root, start: found.start, end: found.end } : null;
}

/** A press on a highlight chooses all of it, so that it can be taken back or changed right there. */
function usePressed(onPress: (stretch: Stretch) => void): void {
  const { all } = useHighlighting();
  const pressed = useEffectEvent((event: MouseEvent) => {
    const selection = document.getSelection();
    if (!selection?.isCollapsed || !selection.anchorNode || !(event.target instanceof Element)) return;
    if (event.target.closest('button, a, input, label, [data-kit]') || !event.target.closest('[data-text]'))
      return;
    const found = highlightAt(all, selection.anchorNode, selection.anchorOffset);
    if (found) onPress(found);
  });
  useEffect(() => {
    const press = (event: MouseEvent) => pressed(event);
    document.addEventListener('click', press);
    return () => document.removeEventListener('click', press);
  }, []);
}

/** The tints at what is selected: the panel may be far from it. For the pointer; keys have the panel. */
function AtSelection({
  stretch,
  onApply,
}: {
  readonly stretch: Stretch;
  readonly onApply: (tint: Tint | null) => void;
}) {
  const box = rangeIn(stretch.root, stretch.start, stretch.end)?.getBoundingClientRect();
  if (!box || box.width === 0 || box.bottom < 0 || box.top > window.innerHeight) return null;
  const top = box.bottom + 48 > window.innerHeight ? box.top - 46 : box.bottom + 6;
  const keep = (event: React.PointerEvent) => event.preventDefault();
  return createPortal(
    <div
      aria-hidden
      data-kit
      style={{ top, left: Math.max(8, Math.min(box.left, window.innerWidth - 200)) }}
      className="fixed z-20 flex gap-1 rounded-card border border-line bg-card p-1 shadow-float"
    >
      {tints.map((tint) => (
        <button
          key={tint}
          type="button"
          tabIndex={-1}
          title={t(`name ${tint}`)}
          onPointerDown={keep}
          onClick={() => onApply(tint)}
          className={`size-9 rounded-control border border-line underline decoration-2 underline-offset-4 ${LOOKS[tint]}`}
        >
          a
        </button>
      ))}
      <button
        type="button"
        tabIndex={-1}
        title={t('erase')}
        onPointerDown={keep}
        onClick={() => onApply(null)}
        className="grid size-9 place-items-center rounded-control text-soft hover:text-ink"
      >
        <Eraser className="size-4" />
      </button>
    </div>,
    document.body,
  );
}

/** Three tints, each with a line of its own; words are selected as anywhere else, and nothing has to be switched off. */
export function Highlighter() {
  const { stretch, setStretch, own: isOwn } = useSelected();
  const { change } = useHighlighting();
  usePressed((next) => {
    setStretch(next);
    showChosen(next);
  });
  const [full, setFull] = useState(false);
  const own = useRef<HTMLDivElement>(null);
  const apply = (tint: Tint | null) => {
    if (!stretch?.root.isConnected || piecesOf(stretch.root).length === 0) return;
    setFull(!change(stretch, tint));
    document.getSelection()?.removeAllRanges();
    setStretch(null);
  };
  const text = stretch && textIn(stretch.root).slice(stretch.start, stretch.end);
  return (
    <Panel
      id="highlight"
      title={t('title')}
      first={{ corner: 'left', width: 350, height: 206 }}
      least={{ width: 280, height: 150 }}
    >
      {stretch?.root.isConnected === true && <AtSelection stretch={stretch} onApply={apply} />}
      <div ref={own} className="min-h-0 flex-1 space-y-2 overflow-y-auto px-3 py-2">
        {!canDraw() && <p className="text-[0.9rem] text-marigold">{t('cannot')}</p>}
        <div className="flex flex-wrap gap-1.5">
          {tints.map((tint) => (
            <button
              key={tint}
              type="button"
              aria-label={t(`name ${tint}`)}
              disabled={!stretch}
              // The selection stays where it is.
              onPointerDown={(event) => event.preventDefault()}
              onClick={() => apply(tint)}
              className={`min-h-9 rounded-control border border-line px-2.5 text-[0.9rem] underline decoration-2 underline-offset-4 ${LOOKS[tint]}`}
            >
              {t(`tint ${tint}`)}
            </button>
          ))}
          <Button
            disabled={!stretch}
            onPointerDown={(event) => event.preventDefault()}
            onClick={() => apply(null)}
            className="text-[0.9rem]"
          >
            <Eraser aria-hidden className="size-4" /> {t('erase')}
          </Button>
        </div>
        <p role="status" className={`line-clamp-2 text-[0.9rem] ${text ? '' : 'text-soft'}`}>
          {full ? t('full') : isOwn ? t('ownWriting') : text ? t('chosen', { text }) : t('how')}
        </p>
        <ByKeys stretch={stretch} onChoose={setStretch} />
        <List />
      </div>
    </Panel>
  );
}
