import { Eraser, Undo2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { PAD, ROUGH_TEXT_LIMIT, STROKE_POINTS_LIMIT, type Drawing } from '../../core/kit/notes';
import { useKit } from './KitContext';
import { Button } from '../ui/Button';
import { words } from '../words';
import { Panel } from './Panel';
import { stepOf, within } from './place';
import { Strokes } from './Strokes';
import { useAid } from './useAid';

const t = words('roughWork', {
  title: 'Rough work',
  text: 'Text',
  drawing: 'Drawing',
  sides: 'What to write with',
  kept: 'Rough work is saved with your test and is never marked.',
  write: 'Your notes',
  pad: 'Drawing pad. Arrow keys move the pen, Space lowers or lifts it, Backspace removes the last line.',
  undo: 'Remove the last line',
  clear: 'Clear the drawing',
  full: 'The drawing is full. Clear something first.',
  lines_one: '{{count}} line',
  lines_other: '{{count}} lines',
  penDown: 'pen down',
  penUp: 'pen up',
});

const countOf = (drawing: Drawing) => drawing.reduce((sum, stroke) => sum + stroke.length / 2, 0);
/** Points nearer than this to the one before are left out, in units of the pad. */
const NEAR = 4;
const PEN_STEP = 10;
const NO_LINES: Drawing = [];
const LONGEST_STROKE = 4000;

function Pad() {
  const drawing = useKit((s) => (s.desk.roughWork.drawing ?? NO_LINES) as Drawing);
  const setRoughWork = useKit((s) => s.setRoughWork);
  const [stroke, setStroke] = useState<readonly number[] | null>(null);
  const [pen, setPen] = useState<{ x: number; y: number; down: boolean } | null>(null);
  const place = useRef<SVGSVGElement>(null);
  const full = countOf(drawing) + (stroke?.length ?? 0) / 2 >= STROKE_POINTS_LIMIT;
  const save = (next: Drawing) => setRoughWork('drawing', next);
  const pointOf = (event: React.PointerEvent): [number, number] => {
    const box = place.current!.getBoundingClientRect();
    const at = (value: number, from: number, length: number, of: number) =>
      Math.round(within(((value - from) / length) * of, 0, of));
    return [
      at(event.clientX, box.left, box.width, PAD.width),
      at(event.clientY, box.top, box.height, PAD.height),
    ];
  };
  const extend = (event: React.PointerEvent) => {
    if (!stroke || full || stroke.length >= LONGEST_STROKE - 2) return;
    const [x, y] = pointOf(event);
    if (Math.hypot(x - stroke.at(-2)!, y - stroke.at(-1)!) >= NEAR) setStroke([...stroke, x, y]);
  };
  const end = () => {
    if (stroke) save([...drawing, [...stroke]]);
    setStroke(null);
  };
  const byKey = (event: React.KeyboardEvent) => {
    const step = stepOf(event.key);
    const at = pen ?? { x: PAD.width / 2, y: PAD.height / 2, down: false };
    if (event.key === 'Backspace') save(drawing.slice(0, -1));
    else if (event.key === ' ') {
      if (!at.down && !full) save([...drawing, [at.x, at.y]]);
      setPen({ ...at, down: !at.down });
    } else if (step) {
      const by = event.shiftKey ? 1 : PEN_STEP;
      const x = within(at.x + step[0] * by, 0, PAD.width);
      const y = within(at.y + step[1] * by, 0, PAD.height);
      setPen({ ...at, x, y });
      const last = drawing.at(-1);
      if (at.down && last && !full && last.length < LONGEST_STROKE - 2)
        save([...drawing.slice(0, -1), [...last, x, y]]);
    } else return;
    event.preventDefault();
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-1.5">
      {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-element-interactions */}
      <svg
        ref={place}
        role="application"
        aria-label={t('pad')}
        tabIndex={0}
        viewBox={`0 0 ${PAD.width} ${PAD.height}`}
        onKeyDown={byKey}
        onBlur={() => setPen(null)}
        onPointerDown={(event) => {
          if (full) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          setStroke(pointOf(event));
        }}
        onPointerMove={extend}
        onPointerUp={end}
        onPointerCancel={end}
        className="min-h-0 w-full flex-1 touch-none rounded-control border border-line bg-card text-ink"
      >
        <Strokes of={stroke ? [...drawing, stroke] : drawing} />
        {pen && (
          <circle
            cx={pen.x}
            cy={pen.y}
            r={pen.down ? 7 : 12}
            className="fill-none stroke-kelp"
            strokeWidth={4}
          />
        )}
      </svg>
      <div className="flex items-center gap-1.5">
        <p role="status" className="min-w-0 flex-1 text-[0.85rem] text-soft">
          {full ? t('full') : t('lines', { count: drawing.length })}
          {pen ? ` · ${t(pen.down ? 'penDown' : 'penUp')}` : ''}
        </p>
        <Button
          aria-label={t('undo')}
          title={t('undo')}
          disabled={drawing.length === 0}
          onClick={() => save(drawing.slice(0, -1))}
        >
          <Undo2 aria-hidden className="size-4" />
        </Button>
        <Button
          aria-label={t('clear')}
          title={t('clear')}
          disabled={drawing.length === 0}
          onClick={() => save([])}
        >
          <Eraser aria-hidden className="size-4" />
        </Button>
      </div>
    </div>
  );
}

function Notes() {
  const text = useKit((s) => (s.desk.roughWork.text ?? '') as string);
  const setRoughWork = useKit((s) => s.setRoughWork);
  return (
    <textarea
      value={text}
      aria-label={t('write')}
      maxLength={ROUGH_TEXT_LIMIT}
      onChange={(event) => setRoughWork('text', event.target.value)}
      className="min-h-24 w-full flex-1 resize-none rounded-control border border-line bg-card px-2.5 py-2"
    />
  );
}

/** A pad for the whole test: text and drawing, kept in the journal, never marked. */
export function RoughWork() {
  const { setting, set } = useAid('rough-work');
  const side = setting.side === 'drawing' ? 'drawing' : 'text';
  return (
    <Panel
      id="rough-work"
      title={t('title')}
      first={{ corner: 'right', width: 420, height: 340 }}
      least={{ width: 260, height: 240 }}
    >
      <div className="flex h-80 min-h-0 flex-1 flex-col gap-2 px-3 py-2">
        <div role="group" aria-label={t('sides')} className="flex gap-1.5">
          {(['text', 'drawing'] as const).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={side === one}
              onClick={() => set({ side: one })}
              className={`min-h-9 rounded-control px-3 text-[0.9rem] ${side === one ? 'bg-wash text-kelp' : 'bg-shade'}`}
            >
              {t(one)}
            </button>
          ))}
        </div>
        {side === 'text' ? <Notes /> : <Pad />}
        <p className="text-[0.85rem] text-soft">{t('kept')}</p>
      </div>
    </Panel>
  );
}
