import { ChevronDown, ChevronUp } from 'lucide-react';
import { Tabs } from 'radix-ui';
import { useEffect, useRef, useState, type RefObject } from 'react';
import type { Document } from '../../../core/documents/document';
import { conditionText } from '../../../core/kinds/code/conditions';
import type { CodeResponse, CodeShown } from '../../../core/kinds/code/response';
import type { FaultPlace } from '../../../core/programs/engine';
import { DocumentView } from '../../documents/DocumentView';
import { TabStrip } from '../../ui/Tabs';
import { useNarrow } from '../../ui/useNarrow';
import { say, words } from '../../words';
import type { AnswerProps } from '../answerProps';
import { CaseTable } from './CaseTable';
import type { EditorHandle } from './CodeEditor';
import { ProgramPane } from './ProgramPane';
import { SqlTables } from './SqlTables';
import { useTrial, type TrialRecord } from './useTrial';

const t = words('code', {
  brief: 'Task',
  program: 'Program',
  cases: 'Cases',
  fold: 'fold',
  unfold: 'unfold',
  conditions: 'The program is also judged by these conditions:',
  rest_one: 'These runs do not count. {{count}} hidden case is run after you hand in.',
  rest_other: 'These runs do not count. {{count}} hidden cases are run after you hand in.',
});

type Props = AnswerProps<CodeShown, CodeResponse>;

interface BriefProps {
  readonly shown: CodeShown;
  readonly prompt: Document;
  readonly promptId: string;
  readonly folds: boolean;
}

function Brief({ shown, prompt, promptId, folds }: BriefProps) {
  const [open, setOpen] = useState(true);
  // In a tab of its own it has all the room there is.
  if (!folds)
    return (
      <div id={promptId}>
        <DocumentView document={prompt} className="font-serif text-[1.03rem]" />
        <Conditions shown={shown} />
      </div>
    );
  const Icon = open ? ChevronUp : ChevronDown;
  return (
    <section className="rounded-card border border-line bg-card px-4 py-2.5">
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="flex min-h-8 w-full items-center gap-2.5 text-left"
      >
        <span className="font-semibold">{t('brief')}</span>
        <span className="text-[0.85rem] text-soft">{t(open ? 'fold' : 'unfold')}</span>
        <span className="flex-1" />
        <Icon aria-hidden className="size-5" />
      </button>
      <div id={promptId} className={open ? '' : 'line-clamp-2'}>
        <DocumentView document={prompt} className="font-serif text-[1.03rem]" />
        <Conditions shown={shown} />
      </div>
    </section>
  );
}

/** What the text of the program must have, told before. */
function Conditions({ shown }: Pick<Props, 'shown'>) {
  if (shown.conditions.length === 0) return null;
  return (
    <div className="mt-2">
      <p className="font-semibold">{t('conditions')}</p>
      <ul className="list-disc pl-5">
        {shown.conditions.map((one) => (
          <li key={one.key}>{say(conditionText(one))}</li>
        ))}
      </ul>
    </div>
  );
}

const TABS = ['brief', 'program', 'cases'] as const;
type Tab = (typeof TABS)[number];

interface SideProps extends React.ComponentProps<'div'> {
  readonly name: Tab;
  /** The tab that is shown, or null where all three are. */
  readonly tab: Tab | null;
  /** A group of its own where it is no panel. */
  readonly group?: boolean;
}

/** One of the three: the panel of a tab on a narrow screen, and no panel where they stand beside each other. */
function Side({ name, tab, group = false, className = '', ...rest }: SideProps) {
  const alone = {
    role: group ? 'group' : undefined,
    'aria-label': group ? t(name) : undefined,
    'aria-labelledby': undefined,
  };
  return (
    <Tabs.Content
      value={name}
      forceMount
      hidden={false}
      tabIndex={undefined}
      className={`${tab === null || tab === name ? '' : 'hidden'} ${className}`}
      {...(tab === null && alone)}
      {...rest}
    />
  );
}

/** Where the candidate is sent by a place in a traceback, once its file is open. */
function useJump(onFile: (name: string) => void, editor: RefObject<EditorHandle | null>) {
  const [wanted, setWanted] = useState<FaultPlace | null>(null);
  useEffect(() => {
    if (wanted) editor.current?.goTo(wanted.line);
  }, [wanted, editor]);
  return (place: FaultPlace) => {
    onFile(place.file);
    setWanted({ ...place });
  };
}

/** Keeps inputs of the candidate's own, and puts each run down. */
function useRecord({
  events,
  onEvent,
  response,
}: Pick<Props, 'events' | 'onEvent' | 'response'>): TrialRecord {
  const { inputs } = events;
  return {
    inputs: Array.isArray(inputs) ? (inputs as readonly string[]) : [],
    onInputs: (next) => onEvent('inputs', next),
    onRun: (cases) => onEvent('run', { language: response.language, cases }),
  };
}

/** A program: the brief on top, the program and the table of cases below it; three tabs on a narrow screen. */
export function Answer(props: Props) {
  const { shown, response, prompt, promptId } = props;
  const trial = useTrial(shown, response, useRecord(props));
  const narrow = useNarrow();
  const [tab, setTab] = useState<Tab>('brief');
  const { language } = response;
  const [file, setFile] = useState('');
  const editor = useRef<EditorHandle>(null);
  const jump = useJump((name) => {
    setFile(name);
    setTab('program');
  }, editor);
  const shownTab = narrow ? tab : null;
  const note = shown.hiddenCases > 0 ? t('rest', { count: shown.hiddenCases }) : '';
  return (
    <Tabs.Root
      value={tab}
      onValueChange={(name) => setTab(name as Tab)}
      className="flex h-full min-h-0 flex-col gap-2.5"
    >
      {narrow && <TabStrip names={TABS} titleOf={(name) => t(name)} />}
      <Side name="brief" tab={shownTab}>
        <Brief shown={shown} prompt={prompt} promptId={promptId} folds={!narrow} />
      </Side>
      <div className="grid min-h-0 flex-1 items-start gap-3.5 desk:grid-cols-[minmax(0,5fr)_minmax(0,4fr)]">
        <Side
          name="program"
          tab={shownTab}
          group
          className="flex h-full min-h-72 flex-col overflow-hidden rounded-card border border-line bg-card"
        >
          <ProgramPane {...{ props, narrow, editor, file }} onFile={setFile} onReady={trial.getReady} />
        </Side>
        <Side name="cases" tab={shownTab} onFocus={trial.getReady}>
          {shown.fixtures.length > 0 && <SqlTables fixtures={shown.fixtures} />}
          <CaseTable shown={shown} language={language} trial={trial} note={note} onJump={jump} />
        </Side>
      </div>
    </Tabs.Root>
  );
}
