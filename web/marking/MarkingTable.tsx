import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Clarification, MarkingScript, MarkingTableData } from '../../core/marking/api';
import type { MarkDraft } from '../../core/marking/mark';
import { showMarks } from '../../core/marks';
import { post } from '../api/client';
import { Files, staffFiles } from '../media/fileSource';
import { RecordingsOf } from '../media/recordings';
import { useRecordings } from '../media/useRecordings';
import { Button } from '../ui/Button';
import { NotHere } from '../ui/NotHere';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import type { FactName, OpenFact } from './Facts';
import { showEstimate } from './figures';
import { Giving } from './Giving';
import { ChangeMark } from './ChangeMark';
import { Marked } from './Marked';
import { Response } from './Response';
import { StaleMark } from './StaleMark';
import { StandardNotice } from './StandardNotice';
import { useMark } from './useMark';
import { usePile } from './usePile';
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
  const [listed, setListed] = useState(false);
  const [singleKeys, setSingleKeys] = useState(keysAreOn);
  const { loaded, pile } = usePile(path);
  if (pile === null) return <NotHere of={loaded} />;
  const { table, script, passed, stale, told, replace } = pile;
  const { last } = table;
  /** What was opened beside the script is closed with it, unless it is kept open. */
  const closeFact = () => {
    if (!fact?.pinned) setFact(null);
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
  const added = table.clarifications.at(-1)?.at ?? null;
  return (
    <main className="flex min-w-0 flex-1 flex-col">
      <Head table={table} onMarked={() => setListed(true)} />
      <Marked open={listed} onOpen={setListed} path={path} added={added} onTakeBack={pile.takeBack} />
      <ChangeMark script={pile.asked} onChange={pile.takeBack} onKeep={pile.keepAsked} />
      {pile.trouble && <Notice tone="trouble">{pile.trouble}</Notice>}
      <News news={news} onRead={readNews} />
      {stale ? (
        <StaleMark
          stale={stale}
          onKeep={() => pile.decide('keep')}
          onReplace={() => pile.decide('replace')}
        />
      ) : told ? (
        <StandardNotice key={told.task} told={told} components={told.components} onRead={pile.readTold} />
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
              onGive={(mark) => {
                closeFact();
                pile.give(script, mark);
              }}
              onAside={() => {
                closeFact();
                pile.setAside(script.task);
              }}
              onTakeBack={pile.takeLastBack}
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
