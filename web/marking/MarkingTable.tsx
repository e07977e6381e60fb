import { BookOpen, CornerDownLeft, PencilLine, Scale } from 'lucide-react';
import { PAD } from '../../core/kit/notes';
import { Strokes } from '../kit/Strokes';
import { useEffect, useEffectEvent, useRef, useState, type ReactNode, useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import type { Credit } from '../../core/kinds/contract';
import { countWords } from '../../core/kinds/shared/richText';
import type { MarkingTableData, MarkingScript } from '../../core/marking/api';
import { marksGiven, type MarksGiven } from '../../core/marking/marksGiven';
import { showMarks, sumMarks } from '../../core/marks';
import { get, post } from '../api/client';
import { readings } from '../kinds/readings';
import { PageSourceContext, pagesOfTask } from '../pages/pageSource';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { DocumentView } from '../documents/DocumentView';
import { Files, staffFiles } from '../media/fileSource';
import { RecordingsOf } from '../media/recordings';
import { useRecordings } from '../media/useRecordings';
import { Pill } from '../ui/Pill';
import { useFetched } from '../staff/queries';
import { useAction } from '../ui/useAsync';
import { letterOf, nameOf, RubricPanel } from './RubricPanel';
import { say } from '../words';
import { t } from './words';

function Head({ table }: { table: MarkingTableData }) {
  const all = table.byYou + table.left;
  return (
    <header className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-6 py-2.5">
      <h1 className="font-semibold">{t('itemTitle', { number: table.itemNumber, title: table.title })}</h1>
      <Pill>{t('marksPill', { marks: showMarks(table.marks) })}</Pill>
      <p className="flex-1 text-soft">{table.roundTitle}</p>
      <div aria-label={t('queue')} role="group" className="flex items-center gap-2.5 text-[0.9rem]">
        {t('byYouCount', { count: table.byYou })}
        <span aria-hidden className="h-2 w-36 overflow-hidden rounded-full bg-line">
          <span
            className="block h-full bg-filled"
            style={{ width: `${all ? (100 * table.byYou) / all : 0}%` }}
          />
        </span>
        <span className="text-soft">{t('leftCount', { count: table.left })}</span>
      </div>
    </header>
  );
}

function Fold({ label, Icon, children }: { label: string; Icon: typeof Scale; children: ReactNode }) {
  return (
    <details className="open:w-full">
      <summary className="inline-flex min-h-9 list-none items-center gap-2 rounded-control border border-line bg-card px-3 hover:border-edge">
        <Icon aria-hidden className="size-4" /> {label}
      </summary>
      <div
        className="mt-2 max-h-72 overflow-y-auto rounded-card border border-line bg-shade px-5 py-4"
        tabIndex={0}
        role="group"
        aria-label={label}
      >
        {children}
      </div>
    </details>
  );
}

/** What the machine gave the rest of the part, with its reasons. */
function Credits({ credits }: { credits: readonly Credit[] }) {
  if (credits.length === 0) return null;
  return (
    <section aria-label={t('byMachine')} className="mt-3 max-w-[74ch] text-[0.92rem]">
      <h2 className="font-semibold">{t('byMachine')}</h2>
      <ul>
        {credits.map(({ component, hundredths, of, reasons }) => (
          <li key={component} className="flex gap-3">
            <span className="flex-1 text-soft">{reasons.map(say).join(' ')}</span>
            <span>
              {showMarks(hundredths)} <span className="text-soft">/ {showMarks(of)}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Response({ table, script }: { table: MarkingTableData; script: MarkingScript }) {
  const { form, text } = candidateKindOf(script.kind).describe(script.shown, script.response, say);
  const pages = useMemo(() => pagesOfTask(script.task), [script.task]);
  return (
    <section aria-label={t('response')} className="min-w-0 flex-1 overflow-y-auto px-6 py-4">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <Fold label={t('question')} Icon={BookOpen}>
          <DocumentView document={table.prompt} className="mb-3 font-semibold" />
          {table.source?.tabs.map((tab) => (
            <div key={tab.title}>
              <h3 className="mb-1 font-semibold text-soft">{tab.title}</h3>
              <DocumentView document={tab.body} className="font-serif" />
            </div>
          ))}
        </Fold>
        <Fold label={t('scheme')} Icon={Scale}>
          <DocumentView document={table.scheme} />
        </Fold>
        {script.roughWork && (
          <Fold label={t('roughWork')} Icon={PencilLine}>
            <p className="mb-2 text-soft">{t('roughWorkText')}</p>
            <p className="whitespace-pre-wrap">{script.roughWork.text}</p>
            {script.roughWork.drawing.length > 0 && (
              <svg
                role="img"
                aria-label={t('roughDrawing')}
                viewBox={`0 0 ${PAD.width} ${PAD.height}`}
                className="mt-2 w-full max-w-[34rem] rounded-control border border-line bg-card"
              >
                <Strokes of={script.roughWork.drawing} />
              </svg>
            )}
          </Fold>
        )}
        <p className="ml-auto text-[0.88rem] text-soft">
          {t('script', { code: script.script })}
          {form === 'words' && ` · ${t('words', { count: countWords(text) })}`}
        </p>
      </div>
      <div className="max-w-[74ch] rounded-card border border-line bg-card px-8 py-6 text-[1.05rem]">
        <PageSourceContext value={pages}>
          {readings.draw(script.kind, {
            shown: script.shown,
            response: script.response,
            right: script.right,
            credits: script.credits,
          })}
        </PageSourceContext>
      </div>
      <Credits credits={script.credits} />
    </section>
  );
}

interface GivingProps {
  readonly script: MarkingScript;
  readonly onGiven: () => void;
}

/** Is the person writing, so that letters and numbers are text and not keys of the rubric? */
const isWriting = (target: EventTarget | null) =>
  target instanceof HTMLTextAreaElement || target instanceof HTMLInputElement;

function Giving({ script, onGiven }: GivingProps) {
  const { components } = script;
  const [given, setGiven] = useState<MarksGiven>({});
  const [active, setActive] = useState(components[0]!.key);
  const [comment, setComment] = useState('');
  const box = useRef<HTMLTextAreaElement>(null);
  const { busy, trouble, run } = useAction();
  const mark = marksGiven(components, given);
  const all = showMarks(sumMarks(components.map((c) => c.of)));
  const ready = mark.missing.length === 0 && !busy;

  const choose = (component: string, value: number | undefined) => {
    const { [component]: _, ...others } = given;
    const next = value === undefined ? others : { ...others, [component]: value };
    setGiven(next);
    const open = components.find((c) => next[c.key] === undefined);
    setActive(open?.key ?? component);
  };
  const give = () =>
    run(async () => {
      await post(`/marking/tasks/${script.task}`, { given, comment });
      onGiven();
    });
  const press = useEffectEvent((event: KeyboardEvent) => {
    if (event.ctrlKey || event.altKey || event.metaKey) return;
    if (event.key === 'Escape' && isWriting(event.target)) box.current?.blur();
    const pressed = event.target instanceof HTMLButtonElement || event.target instanceof HTMLAnchorElement;
    if (isWriting(event.target) || (event.key === 'Enter' && pressed)) return;
    const criterion = components.find((c) => letterOf(c) === event.key.toLowerCase());
    const level = Number(event.key) - 1;
    const levelCount = components.find((c) => c.key === active)!.criterion?.levels?.length ?? 0;
    if (criterion) setActive(criterion.key);
    else if (level >= 0 && level < levelCount) choose(active, level);
    else if (event.key.toLowerCase() === 'c') {
      event.preventDefault();
      box.current?.focus();
    } else if (event.key === 'Enter' && ready) void give();
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => press(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);

  return (
    <aside className="flex w-[22rem] flex-none flex-col gap-4 overflow-y-auto border-l border-line px-5 py-4">
      <RubricPanel components={components} given={given} active={active} onGive={choose} />
      <label className="block border-t border-line pt-3">
        <b>{t('comment')}</b>
        <textarea
          ref={box}
          rows={4}
          maxLength={4000}
          value={comment}
          onChange={(event) => setComment(event.target.value)}
          className="mt-1.5 w-full rounded-control border border-edge bg-card p-2.5"
        />
      </label>
      <p className="text-[0.8rem] text-soft">{t('keysHelp')}</p>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <div className="mt-auto">
        <p className="mb-3 text-soft" role="status">
          <b className="text-[1.7rem] text-ink">
            {mark.marks.length === 0 ? '–' : showMarks(sumMarks(mark.marks.map((m) => m.hundredths)))}
          </b>{' '}
          {mark.missing.length === 0
            ? t('total', { all })
            : t('totalOpen', { all, open: mark.missing.map(nameOf).join(', ').toLowerCase() })}
        </p>
        <Button look="first" disabled={!ready} onClick={() => void give()} className="w-full">
          {t('next')} <CornerDownLeft aria-hidden className="size-4" />
        </Button>
      </div>
    </aside>
  );
}

/** The marking table: the response at reading width, the rubric at the right, everything by keyboard. */
export function MarkingTable() {
  const recordings = useRecordings(staffFiles);
  const { round = '', item = '', part = '' } = useParams();
  const path = `/marking/piles/${round}/${item}/${part}`;
  const [loaded, reload, replace] = useFetched(path, async () => {
    const table = await get<MarkingTableData>(path);
    await readings.load(table.scripts.map((s) => s.kind));
    return table;
  });
  if (loaded.state === 'loading') return <main className="p-8 text-soft">…</main>;
  if (loaded.state === 'trouble')
    return (
      <main className="p-8">
        <Notice tone="trouble">{loaded.message}</Notice>
      </main>
    );
  const table = loaded.value;
  const [script] = table.scripts;
  // The next response is already here: it is shown at once, and the pile is looked at again behind it.
  const given = () => {
    replace({ ...table, scripts: table.scripts.slice(1), byYou: table.byYou + 1, left: table.left - 1 });
    reload();
  };
  return (
    <main className="flex min-w-0 flex-1 flex-col">
      <Head table={table} />
      {script ? (
        <div className="flex min-h-0 flex-1">
          <Files value={staffFiles}>
            <RecordingsOf value={recordings}>
              <Response table={table} script={script} />
            </RecordingsOf>
          </Files>
          <Giving key={script.task} script={script} onGiven={given} />
        </div>
      ) : (
        <div className="p-8">
          <h2 className="font-serif text-[1.35rem] font-semibold">{t('done')}</h2>
          <p className="my-2">{t('doneText')}</p>
          <Link to="/staff/marking" className="text-slate underline underline-offset-4">
            {t('back')}
          </Link>
        </div>
      )}
    </main>
  );
}
