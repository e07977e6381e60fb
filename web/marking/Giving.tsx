import { readsWide } from '../kinds/readings';
import { CornerDownLeft, Keyboard, Undo2 } from 'lucide-react';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { MarkingScript, MarkingTableData, Phrase } from '../../core/marking/api';
import type { MarkDraft } from '../../core/marking/mark';
import { showMarks, sumMarks } from '../../core/marks';
import { Button } from '../ui/Button';
import { stopKeeping } from './draftStore';
import { Phrases } from './Phrases';
import { nameOf, RubricPanel } from './RubricPanel';
import { SetAside } from './SetAside';
import type { Marking } from './useMark';
import { t } from './words';

interface Props {
  readonly table: MarkingTableData;
  readonly script: MarkingScript;
  readonly marking: Marking;
  readonly singleKeys: boolean;
  readonly onSingleKeys: (on: boolean) => void;
  readonly onFact: (name: 'question' | 'scheme') => void;
  readonly onGive: (mark: MarkDraft) => void;
  readonly onAside: () => void;
  readonly onTakeBack: (() => void) | null;
  readonly onPhrases: (phrases: readonly Phrase[]) => void;
}

/** Is the person writing, so that letters and numbers are text and not keys of the rubric? */
const isWriting = (target: EventTarget | null) =>
  target instanceof HTMLTextAreaElement ||
  target instanceof HTMLSelectElement ||
  (target instanceof HTMLInputElement && !['radio', 'checkbox'].includes(target.type));

/** Alt with a figure puts in the phrase of that number, wherever one writes. */
const PHRASE_CODE = /^Digit([1-9])$/;

/** How many open criteria are named. */
const NAMED_MOST = 4;

const KEYS = [
  'keyCriterion',
  'keyMark',
  'keyHalf',
  'keyEnter',
  'keyNote',
  'keyComment',
  'keyPhrase',
  'keyFacts',
  'keyAside',
  'keyUndo',
] as const;

function Keys({ on, onSwitch }: { readonly on: boolean; readonly onSwitch: (on: boolean) => void }) {
  return (
    <details className="text-[0.82rem] text-soft">
      <summary className="inline-flex min-h-8 items-center gap-1.5 text-slate">
        <Keyboard aria-hidden className="size-4" /> {t('keys')}
      </summary>
      <ul className="space-y-0.5 pb-1">
        {KEYS.map((key) => (
          <li key={key}>{t(key)}</li>
        ))}
      </ul>
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={on} onChange={(event) => onSwitch(event.target.checked)} />
        {t('singleKeys')}
      </label>
    </details>
  );
}

/** The rubric, the comment, and the act that passes the script on. */
export function Giving(props: Props) {
  const { table, script, marking, singleKeys, onFact, onGive, onTakeBack } = props;
  const { components } = script;
  const { draft, mark } = marking;
  const box = useRef<HTMLTextAreaElement>(null);
  const [aside, setAside] = useState(false);
  const all = showMarks(sumMarks(components.map((c) => c.of)));
  const { toConfirm } = marking;
  const ready = mark.missing.length === 0 && toConfirm.length === 0;
  const panel = useRef<HTMLElement>(null);
  const give = () => {
    // Enter is to press nothing of the next script that this one was marked with.
    const { activeElement } = document;
    if (activeElement instanceof HTMLElement && panel.current?.contains(activeElement)) activeElement.blur();
    stopKeeping(script.task);
    onGive({ ...draft, notes: draft.notes.filter(({ text }) => text.trim() !== '') });
  };
  const putPhrase = (text: string) =>
    marking.change({ comment: draft.comment ? `${draft.comment} ${text}` : text });
  const acts: Record<string, () => void> = {
    k: () => box.current?.focus(),
    q: () => onFact('question'),
    h: () => onFact('scheme'),
    s: () => setAside(true),
    u: () => onTakeBack?.(),
    w: () => document.querySelector<HTMLElement>('[data-to-notes]')?.focus(),
  };
  const press = useEffectEvent((event: KeyboardEvent) => {
    // A level takes no Enter and holds it back; here it gives the marks, as everywhere on the page.
    const onLevel =
      event.key === 'Enter' && event.target instanceof HTMLElement && event.target.matches('[role="radio"]');
    const taken = event.defaultPrevented && !onLevel;
    const phrase = event.altKey && !event.ctrlKey && !event.metaKey ? PHRASE_CODE.exec(event.code) : null;
    if (phrase && singleKeys && !aside) {
      const chosen = table.phrases[Number(phrase[1]) - 1];
      if (chosen) putPhrase(chosen.text);
      event.preventDefault();
      return;
    }
    if (event.ctrlKey || event.altKey || event.metaKey || taken || aside) return;
    if (event.key === 'Escape' && event.target === box.current) box.current?.blur();
    const pressed =
      event.target instanceof HTMLButtonElement ||
      event.target instanceof HTMLAnchorElement ||
      (event.target instanceof HTMLElement && event.target.matches('summary'));
    if (isWriting(event.target) || (event.key === 'Enter' && pressed && !onLevel)) return;
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      marking.step(event.key === 'ArrowDown' ? 1 : -1);
      return;
    }
    if (event.key === 'Enter') {
      event.preventDefault();
      if (marking.typed !== '') marking.press('Enter');
      else if (toConfirm.includes(marking.active)) marking.confirm();
      else if (ready) give();
      return;
    }
    if (!singleKeys) return;
    if (marking.press(event.key)) {
      event.preventDefault();
      return;
    }
    const act = acts[event.key.toLowerCase()];
    if (!act) return;
    event.preventDefault();
    act();
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => press(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  // Each script begins at the top of the rubric.
  useEffect(() => {
    panel.current?.firstElementChild?.scrollTo?.({ top: 0 });
  }, [script.task]);
  return (
    <aside
      ref={panel}
      aria-label={t('yourMark')}
      className={`flex flex-none flex-col ${readsWide(script.kind) ? 'w-[18rem]' : 'w-[21rem]'} border-l border-line max-[860px]:w-full max-[860px]:border-t max-[860px]:border-l-0`}
    >
      <div className="min-h-0 flex-1 space-y-4 overflow-y-auto px-4 py-4">
        <RubricPanel
          task={script.task}
          components={components}
          given={draft.given}
          active={singleKeys ? marking.active : null}
          typed={marking.typed}
          toConfirm={marking.toConfirm}
          onActive={marking.setActive}
          onGive={marking.give}
        />
        <div className="border-t border-line pt-3">
          <label className="block">
            <b>{t('comment')}</b>
            <textarea
              ref={box}
              rows={3}
              maxLength={4000}
              value={draft.comment}
              onChange={(event) => marking.change({ comment: event.target.value })}
              className="mt-1.5 w-full rounded-control border border-edge bg-card p-2.5"
            />
          </label>
          <Phrases
            round={table.round}
            phrases={table.phrases}
            comment={draft.comment}
            onUse={putPhrase}
            onChanged={props.onPhrases}
          />
        </div>
        <Keys on={singleKeys} onSwitch={props.onSingleKeys} />
      </div>
      <div className="border-t border-line px-4 py-3">
        {marking.kept === false && <p className="text-[0.85rem] text-marigold">{t('keptHere')}</p>}
        {marking.refused && (
          <p role="alert" className="mb-1 text-[0.88rem] text-marigold">
            {marking.refused}
          </p>
        )}
        {toConfirm.length > 0 && (
          <p className="mb-1 flex flex-wrap items-center gap-x-2 text-[0.88rem]">
            <span role="status">{t('toConfirm', { count: toConfirm.length })}</span>
            <button
              type="button"
              onClick={marking.confirmAll}
              className="min-h-8 text-slate underline underline-offset-4"
            >
              {t('confirmAll')}
            </button>
          </p>
        )}
        <p className="mb-2 text-soft" role="status">
          <b className="text-[1.6rem] text-ink">
            {mark.marks.length === 0 ? '–' : showMarks(sumMarks(mark.marks.map((m) => m.hundredths)))}
          </b>{' '}
          {mark.missing.length === 0
            ? t('total', { all })
            : mark.missing.length > NAMED_MOST
              ? t('totalOpenMany', { all, count: mark.missing.length })
              : t('totalOpen', { all, open: mark.missing.map(nameOf).join(', ').toLowerCase() })}
        </p>
        <div className="flex flex-wrap items-center gap-2">
          <SetAside
            key={script.task}
            task={script.task}
            open={aside}
            onOpen={setAside}
            onAside={props.onAside}
          />
          {onTakeBack && (
            <Button look="quiet" aria-label={t('takeBack')} onClick={onTakeBack} className="px-2!">
              <Undo2 aria-hidden className="size-4" />
            </Button>
          )}
          <Button look="first" disabled={!ready} onClick={give} className="flex-1">
            {t('next')} <CornerDownLeft aria-hidden className="size-4" />
          </Button>
        </div>
      </div>
    </aside>
  );
}
