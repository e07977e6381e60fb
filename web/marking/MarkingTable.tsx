import { useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { MarkDraft } from '../../core/marking/mark';
import type {
  Clarification,
  GivenReply,
  MarkedScript,
  MarkingScript,
  MarkingTableData,
  MarkStanding,
  StandardTold,
} from '../../core/marking/api';
import { marksGiven } from '../../core/marking/marksGiven';
import { showMarks, sumMarks } from '../../core/marks';
import { CORRECTION_MS } from '../../core/marking/standardisation';
import { ApiProblem, get, messageOf, post } from '../api/client';
import { readings } from '../kinds/readings';
import { Files, staffFiles } from '../media/fileSource';
import { RecordingsOf } from '../media/recordings';
import { useRecordings } from '../media/useRecordings';
import { Button } from '../ui/Button';
import { atRest } from '../ui/atRest';
import { NotHere } from '../ui/NotHere';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { useFetched } from '../staff/queries';
import type { FactName, OpenFact } from './Facts';
import { dropDraft } from './draftStore';
import { showEstimate } from './figures';
import { Giving } from './Giving';
import { ChangeMark } from './ChangeMark';
import { Marked } from './Marked';
import { Response } from './Response';
import { StaleMark, type Stale } from './StaleMark';
import { StandardNotice } from './StandardNotice';
import { useMark } from './useMark';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

function Head({ table, onMarked }: { readonly table: MarkingTableData; readonly onMarked: () => void }) {
  const all = table.byYou + table.left;
  const { agreement } = table;
  return (
    <header className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-6 py-2.5">
      <PageHeading className="font-semibold">
        {t('itemTitle', { number: table.itemNumber, title: table.title })}
      </PageHeading>
      <Pill>{t('marksPill', { marks: showMarks(table.marks) })}</Pill>
      <p className="min-w-0 flex-1 truncate text-soft">{table.roundTitle}</p>
      <div aria-label={t('queue')} role="group" className="flex items-center gap-2.5 text-[0.9rem]">
        {table.last === null ? (
          t('byYouCount', { count: table.byYou })
        ) : (
          <button
            type="button"
            onClick={onMarked}
            className="min-h-8 text-slate underline underline-offset-4"
          >
            {t('byYouCount', { count: table.byYou })}
          </button>
        )}
        <span aria-hidden className="h-2 w-36 overflow-hidden rounded-full bg-line">
          <span
            className="block h-full bg-filled"
            style={{ width: `${all ? (100 * table.byYou) / all : 0}%` }}
          />
        </span>
        <span className="text-soft">{t('leftCount', { count: table.left })}</span>
        {agreement.value !== null && (
          <Pill tone="good">
            {t('agreementPill', { figure: showEstimate(agreement), count: agreement.n })}
          </Pill>
        )}
      </div>
    </header>
  );
}

/** What the lead added to the mark scheme since the assessor last looked. */
function News({ news, onRead }: { readonly news: readonly Clarification[]; readonly onRead: () => void }) {
  if (news.length === 0) return null;
  const touches = Math.max(...news.map((one) => one.touches));
  return (
    <div className="px-6 pt-3">
      <Notice tone="care">
        <b>{t('clarified')}</b>
        <ul className="list-disc pl-5 text-ink">
          {news.map(({ id, text }) => (
            <li key={id} className="whitespace-pre-wrap">
              {text}
            </li>
          ))}
        </ul>
        {touches > 0 && <p className="text-ink">{t('clarifiedTouches', { count: touches })}</p>}
        <Button onClick={onRead} className="mt-2">
          {t('clarifiedRead')}
        </Button>
      </Notice>
    </div>
  );
}

interface ScriptProps {
  readonly table: MarkingTableData;
  readonly script: MarkingScript;
  readonly fact: OpenFact | null;
  readonly onFact: (fact: OpenFact | null) => void;
  readonly singleKeys: boolean;
  readonly onSingleKeys: (on: boolean) => void;
  readonly onGive: (mark: MarkDraft) => void;
  readonly onAside: () => void;
  readonly onTakeBack: (() => void) | null;
  readonly onTable: (table: MarkingTableData) => void;
}

function Script({ table, script, fact, onFact, onTable, ...rest }: ScriptProps) {
  const marking = useMark(script);
  const toggle = (name: FactName) =>
    onFact(fact?.name === name ? null : { name, pinned: fact?.pinned ?? false });
  return (
    <div className="flex min-h-0 flex-1 max-[860px]:flex-col">
      <Response
        key={script.task}
        table={table}
        script={script}
        marking={marking}
        fact={fact}
        onFact={onFact}
      />
      <Giving
        {...rest}
        table={table}
        script={script}
        marking={marking}
        onFact={toggle}
        onPhrases={(phrases) => onTable({ ...table, phrases })}
      />
    </div>
  );
}

const KEYS_OFF = 'marking without single keys';
const keysAreOn = () => {
  try {
    return localStorage.getItem(KEYS_OFF) === null;
  } catch {
    return true;
  }
};

/** The marking table: the response at reading width with its margin, the rubric at the right, everything by keyboard. */
export function MarkingTable() {
  const recordings = useRecordings(staffFiles);
  const { round = '', item = '', part = '' } = useParams();
  const path = `/marking/piles/${round}/${item}/${part}`;
  const [fact, setFact] = useState<OpenFact | null>(null);
  const [told, setTold] = useState<StandardTold | null>(null);
  const [stale, setStale] = useState<Stale | null>(null);
  const [listed, setListed] = useState(false);
  /** A script that was passed on some time ago, and may be changed after a question. */
  const [asked, setAsked] = useState<MarkedScript | null>(null);
  const [passedAt, setPassedAt] = useState(0);
  const sending = useRef<Promise<unknown>>(Promise.resolve());
  const [trouble, setTrouble] = useState<string | null>(null);
  const [sent, setSent] = useState<ReadonlySet<number>>(new Set());
  const unsend = (task: number) => setSent((known) => new Set([...known].filter((one) => one !== task)));
  const [singleKeys, setSingleKeys] = useState(keysAreOn);
  /** Something was passed since the pile was last looked at: that nothing is here does not mean that nothing is left. */
  const [passed, setPassed] = useState(false);
  const [loaded, reload, replace] = useFetched(path, async () => {
    const table = await get<MarkingTableData>(path);
    setPassed(false);
    await readings.load(table.scripts.map((s) => s.kind));
    return table;
  });
  if (loaded.state !== 'here') return <NotHere of={loaded} />;
  const table = loaded.value;
  // What is on its way is not shown again, whenever the pile was last looked at.
  const script = table.scripts.find((one) => !sent.has(one.task));
  // The next response is already here: it is shown at once, and the pile is looked at again behind it.
  const pass = (by: number, last = table.last) => {
    const scripts = table.scripts.slice(1);
    replace({ ...table, scripts, last, byYou: table.byYou + by, left: table.left - by });
    if (!fact?.pinned) setFact(null);
    setPassed(true);
  };
  /** The mark goes behind the next script; one that is refused brings its script back, as it was kept on this device. */
  const give = (script: MarkingScript, mark: MarkDraft, seen = script.seen) => {
    setTrouble(null);
    setSent((known) => new Set(known).add(script.task));
    setPassedAt(Date.now());
    // What is taken back next is this one, also before its mark has arrived.
    const { marks } = marksGiven(script.components, mark.given);
    const total = sumMarks(marks.map(({ hundredths }) => hundredths));
    pass(1, { task: script.task, script: script.script, total, at: Date.now(), words: mark.comment });
    sending.current = post<GivenReply>(`/marking/tasks/${script.task}`, { ...mark, seen }).then(
      (reply) => {
        dropDraft(script.task);
        if (reply.told) setTold(reply.told);
        atRest(reload);
      },
      (problem: unknown) => {
        if (problem instanceof ApiProblem && problem.code === 'mark-given-elsewhere')
          return setStale({ script, mark, standing: problem.details as MarkStanding });
        setTrouble(messageOf(problem));
        unsend(script.task);
        replace(table);
      },
    );
  };
  const decide = (which: 'keep' | 'replace') => {
    const { script: of, mark, standing } = stale!;
    setStale(null);
    if (which === 'replace') return give(of, mark, standing.judgement);
    dropDraft(of.task);
    reload();
  };
  const readTold = () => {
    const [next] = table.told;
    if (told || !next) return setTold(null);
    replace({ ...table, told: table.told.slice(1) });
    void post(`/marking/tasks/${next.task}/told`).catch(() => undefined);
  };
  const takeBack = (task: number) => {
    setTrouble(null);
    dropDraft(task);
    unsend(task);
    // A mark that is on its way arrives before it is taken back.
    void sending.current
      .then(() => post(`/marking/tasks/${task}/take-back`))
      .then(reload, (problem: unknown) => setTrouble(messageOf(problem)));
  };
  const switchKeys = (on: boolean) => {
    setSingleKeys(on);
    try {
      if (on) localStorage.removeItem(KEYS_OFF);
      else localStorage.setItem(KEYS_OFF, 'true');
    } catch {
      // Without storage it holds until the page is left.
    }
  };
  const news = table.clarifications.filter((one) => one.isNew);
  const readNews = () => {
    replace({ ...table, clarifications: table.clarifications.map((one) => ({ ...one, isNew: false })) });
    void Promise.all(news.map(({ id }) => post(`/marking/clarifications/${id}/read`))).catch(() => undefined);
  };
  const { last } = table;
  /** At once while it was just passed on; later it is asked first, whatever script it is. */
  const takeLastBack = () => {
    if (!last) return;
    if (Date.now() - passedAt < CORRECTION_MS) takeBack(last.task);
    else setAsked(last);
  };
  const added = table.clarifications.at(-1)?.at ?? null;
  const compared = told ?? table.told[0] ?? null;
  return (
    <main className="flex min-w-0 flex-1 flex-col">
      <Head table={table} onMarked={() => setListed(true)} />
      <Marked open={listed} onOpen={setListed} path={path} added={added} onTakeBack={takeBack} />
      <ChangeMark
        script={asked}
        onChange={(task) => {
          setAsked(null);
          takeBack(task);
        }}
        onKeep={() => setAsked(null)}
      />
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <News news={news} onRead={readNews} />
      {stale ? (
        <StaleMark stale={stale} onKeep={() => decide('keep')} onReplace={() => decide('replace')} />
      ) : compared ? (
        <StandardNotice
          key={compared.task}
          told={compared}
          components={compared.components}
          onRead={readTold}
        />
      ) : script ? (
        <Files value={staffFiles}>
          <RecordingsOf value={recordings}>
            <Script
              table={table}
              script={script}
              fact={fact}
              onFact={setFact}
              singleKeys={singleKeys}
              onSingleKeys={switchKeys}
              onGive={(mark) => give(script, mark)}
              onAside={() => {
                pass(0);
                reload();
              }}
              onTakeBack={last ? takeLastBack : null}
              onTable={replace}
            />
          </RecordingsOf>
        </Files>
      ) : passed && table.left > 0 ? (
        <p role="status" className="p-8 text-soft">
          {t('fetchingNext')}
        </p>
      ) : (
        <div className="overflow-y-auto p-8">
          <h2 className="font-serif text-[1.35rem] font-semibold">
            {table.held === null ? t('done') : t('heldTitle')}
          </h2>
          <p className="my-2">
            {table.held !== null
              ? t('heldText', { reason: table.held })
              : table.left > 0
                ? t('withLead', { count: table.left })
                : t('doneText')}
          </p>
          <Link to="/staff/marking" className="text-slate underline underline-offset-4">
            {t('back')}
          </Link>
          {last && (
            <p className="mt-4">
              <Button onClick={() => setListed(true)}>{t('markedByYou')}</Button>
            </p>
          )}
        </div>
      )}
    </main>
  );
}
