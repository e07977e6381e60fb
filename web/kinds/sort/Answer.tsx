import { DndContext, useDroppable } from '@dnd-kit/core';
import { useEffect, useEffectEvent, useRef, type ReactNode } from 'react';
import { textOf } from '../../../core/kinds/shared/entries';
import { binsOf, chipsIn, type SortResponse, type SortShown } from '../../../core/kinds/sort/response';
import { announce as say } from '../../ui/announce';
import type { AnswerProps } from '../answerProps';
import { SILENT_DRAGGING, useDragSensors } from '../shared/dragSensors';
import { Chip } from './Chip';
import { useSorting } from './useSorting';
import { t } from './words';

type Props = AnswerProps<SortShown, SortResponse>;

interface BinProps {
  readonly bin: SortShown['bins'][number];
  readonly inside: number;
  readonly over: boolean;
  readonly putName: string | null;
  readonly onPut: () => void;
  readonly children: ReactNode;
}

function Bin({ bin, inside, over, putName, onPut, children }: BinProps) {
  const { setNodeRef, isOver } = useDroppable({ id: bin.key });
  const inReach = over || isOver;
  return (
    <div
      ref={setNodeRef}
      role="group"
      aria-label={bin.text}
      data-bin={bin.key}
      data-drop
      className={`flex min-w-0 flex-col rounded-lg border-[1.5px] border-dashed p-2.5 data-over:border-kelp data-over:bg-wash ${inReach ? 'border-kelp bg-wash' : 'border-edge bg-shade/60'}`}
    >
      <p className="mb-2 flex flex-wrap items-baseline gap-x-2 font-semibold">
        <span className="min-w-0 break-words">{bin.text}</span>
        {bin.limit !== null && (
          <span className="text-[0.85rem] font-normal text-soft">
            {t('of', { inside, limit: bin.limit })}
          </span>
        )}
      </p>
      <ul className="flex min-h-11 flex-wrap gap-2">{children}</ul>
      {inside === 0 && !putName && <p className="-mt-9 min-h-9 text-[0.88rem] text-soft">{t('empty')}</p>}
      {putName && (
        <button
          type="button"
          aria-label={putName}
          onClick={onPut}
          className="mt-2 min-h-11 rounded-control border border-kelp bg-card px-3 text-kelp hover:bg-wash"
        >
          {t('putHere')}
        </button>
      )}
    </div>
  );
}

/** Chips put where they belong: by pressing chip and bin, by dragging, by keys, or from the phrases of the source. */
export function Answer({ shown, response, onChange, promptId, needId, source }: Props) {
  const sensors = useDragSensors();
  const sorting = useSorting({ shown, response, onChange, say });
  const { held, refused, take, letGo, put, remove, carry } = sorting;
  const nameOf = (chip: string) => textOf(shown.chips, chip);
  const tray = useRef<HTMLUListElement>(null);
  const frame = useRef<HTMLDivElement>(null);

  const { fromSource } = shown;
  const picked = useEffectEvent((name: string) => {
    if (shown.chips.some(({ key }) => key === name)) take(name, null);
  });
  const dropped = useEffectEvent((name: string, at: Element | null) => {
    const bin = at?.closest<HTMLElement>('[data-bin]');
    if (!bin || !frame.current?.contains(bin) || !shown.chips.some(({ key }) => key === name)) return;
    // Where it lies in a bin already, it moves from there unless it may lie in several.
    put(name, shown.often ? null : (binsOf(response, name)[0] ?? null), bin.dataset.bin!);
  });
  const { use } = source;
  const inHand = held?.chip;
  useEffect(() => {
    if (!fromSource) return;
    use({
      how: 'pick',
      chosen: new Set(inHand === undefined ? [] : [inHand]),
      onPress: (name) => picked(name),
      onDrop: (name, at) => dropped(name, at),
    });
    return () => use(null);
  }, [fromSource, inHand, use]);

  /** What was put down is out of reach: the next one that waits is taken by the keyboard then. */
  const goOn = () => requestAnimationFrame(() => tray.current?.querySelector('button')?.focus());
  const putHeld = (bin: string) => {
    if (held && put(held.chip, held.from, bin)) goOn();
  };
  const onKey = (event: React.KeyboardEvent) => {
    if (!held) return;
    const back = event.key === 'ArrowLeft' || event.key === 'ArrowUp';
    if (back || event.key === 'ArrowRight' || event.key === 'ArrowDown') carry(back ? -1 : 1);
    else if (event.key === 'Escape') letGo();
    else if ((event.key === 'Enter' || event.key === ' ') && held.over !== null)
      putHeld(shown.bins[held.over]!.key);
    else return;
    event.preventDefault();
  };
  const waiting = shown.chips.filter(({ key }) => shown.often || binsOf(response, key).length === 0);
  const isHeld = (chip: string, from: string | null) => held?.chip === chip && held.from === from;

  return (
    <DndContext
      sensors={sensors}
      accessibility={SILENT_DRAGGING}
      onDragEnd={({ active, over }) => {
        const [from, chip] = String(active.id).split('/') as [string, string];
        if (over) put(chip, from === '' ? null : from, String(over.id));
      }}
    >
      <div ref={frame} role="group" aria-labelledby={promptId} aria-describedby={needId}>
        <p className="mb-2 text-[0.88rem] text-soft">{t(fromSource ? 'howSource' : 'how')}</p>
        <ul ref={tray} aria-label={t('chips')} className="mb-3 flex flex-wrap gap-2">
          {waiting.map(({ key, text }) => (
            <Chip
              key={key}
              id={`/${key}`}
              text={text}
              name={t('take', { text })}
              held={isHeld(key, null)}
              onTake={() => take(key, null)}
              onKey={onKey}
            />
          ))}
          {waiting.length === 0 && <li className="text-[0.88rem] text-soft">{t('none')}</li>}
        </ul>
        {held && (
          <p className="mb-2 flex flex-wrap items-center gap-2 text-[0.92rem]">
            <b>{t('held', { text: nameOf(held.chip) })}</b>
            <button
              type="button"
              onClick={letGo}
              className="min-h-9 rounded-control border border-line bg-card px-2.5 hover:border-edge"
            >
              {t('letGoButton')}
            </button>
          </p>
        )}
        <div className="grid gap-3 [grid-template-columns:repeat(auto-fit,minmax(min(12rem,100%),1fr))]">
          {shown.bins.map((bin, i) => (
            <Bin
              key={bin.key}
              bin={bin}
              inside={chipsIn(response, bin.key).length}
              over={held?.over === i}
              putName={
                held && held.from !== bin.key
                  ? t('putInto', { text: nameOf(held.chip), bin: bin.text })
                  : null
              }
              onPut={() => putHeld(bin.key)}
            >
              {chipsIn(response, bin.key).map((chip) => (
                <Chip
                  key={chip}
                  id={`${bin.key}/${chip}`}
                  text={nameOf(chip)}
                  name={t('takeFrom', { text: nameOf(chip), bin: bin.text })}
                  held={isHeld(chip, bin.key)}
                  onTake={() => take(chip, bin.key)}
                  onKey={onKey}
                  removeName={t('remove', { text: nameOf(chip), bin: bin.text })}
                  onRemove={() => remove(bin.key, chip)}
                />
              ))}
            </Bin>
          ))}
        </div>
        <p role="status" className="mt-1 min-h-6 text-[0.88rem] text-marigold">
          {refused}
        </p>
      </div>
    </DndContext>
  );
}
