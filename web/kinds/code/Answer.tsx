import { ChevronDown, ChevronUp, Lock } from 'lucide-react';
import { RadioGroup, Tabs } from 'radix-ui';
import { useEffect, useRef, useState, type Ref, type RefObject } from 'react';
import type { Document } from '../../../core/documents/document';
import { conditionText } from '../../../core/kinds/code/conditions';
import { filesAsked, limitsOf, textOf } from '../../../core/kinds/code/program';
import type { AskedFile, CodeResponse, CodeShown, Language } from '../../../core/kinds/code/response';
import type { FaultPlace } from '../../../core/programs/engine';
import { DocumentView } from '../../documents/DocumentView';
import { TabStrip } from '../../ui/Tabs';
import { useNarrow } from '../../ui/useNarrow';
import { say, words } from '../../words';
import type { AnswerProps } from '../answerProps';
import { CaseTable } from './CaseTable';
import { CodeEditor, type EditorHandle } from './CodeEditor';
import { languageNames } from './languageNames';
import { SignRow } from './SignRow';
import { SqlTables } from './SqlTables';
import { useTrial, type TrialRecord } from './useTrial';

const t = words('code', {
  brief: 'Task',
  program: 'Program',
  cases: 'Cases',
  language: 'Language',
  fold: 'fold',
  unfold: 'unfold',
  limits: '{{seconds}} s and {{megabytes}} MB per case',
  editor: 'Program in {{language}}',
  editorOf: '{{file}}, program in {{language}}',
  files: 'Files',
  locked: '{{name}}, cannot be changed',
  conditions: 'The program is also judged by these conditions:',
  scriptStreams:
    'readLine() gives the next line of the input, or null at its end; readText() gives the rest. Write with console.log().',
  pythonStreams: 'Read the input with input() or sys.stdin. Write with print().',
  types: 'Types of TypeScript are removed before the program runs. They are not checked.',
  rest_one: 'These runs do not count. {{count}} hidden case is run after you hand in.',
  rest_other: 'These runs do not count. {{count}} hidden cases are run after you hand in.',
  leave: 'Tab indents. Press Esc and then Tab to leave the editor.',
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

function Languages({ shown, response, onChange }: Pick<Props, 'shown' | 'response' | 'onChange'>) {
  return (
    <RadioGroup.Root
      aria-label={t('language')}
      value={response.language}
      onValueChange={(language) => onChange({ ...response, language: language as Language })}
      className="flex flex-wrap gap-1"
    >
      {shown.languages.map(({ language }) => (
        <RadioGroup.Item
          key={language}
          value={language}
          className="min-h-8 rounded-full px-3 text-[0.88rem] text-soft hover:bg-shade data-[state=checked]:bg-wash data-[state=checked]:font-semibold data-[state=checked]:text-kelp"
        >
          {languageNames[language]}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}

interface FilesProps {
  readonly files: readonly AskedFile[];
  readonly file: string;
  readonly onFile: (name: string) => void;
}

/** The files of a program, where there are several. */
function FileTabs({ files, file, onFile }: FilesProps) {
  return (
    <div role="tablist" aria-label={t('files')} className="flex gap-1 border-b border-line px-2">
      {files.map(({ name, open }) => (
        <button
          key={name}
          type="button"
          role="tab"
          aria-selected={name === file}
          aria-label={open ? name : t('locked', { name })}
          onClick={() => onFile(name)}
          className="flex min-h-9 items-center gap-1.5 border-b-2 border-transparent px-2 font-mono text-[0.82rem] text-soft aria-selected:border-kelp aria-selected:text-ink"
        >
          {!open && <Lock aria-hidden className="size-3.5" />}
          {name}
        </button>
      ))}
    </div>
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

/** How the program gets its input and gives its output, in its language. */
function WayNote({ shown, language }: Pick<Props, 'shown'> & { readonly language: Language }) {
  const script = language === 'javascript' || language === 'typescript';
  const notes = [
    ...(shown.way.is === 'streams' && script ? [t('scriptStreams')] : []),
    ...(shown.way.is === 'streams' && language === 'python' ? [t('pythonStreams')] : []),
    ...(language === 'typescript' ? [t('types')] : []),
  ];
  return notes.map((note) => (
    <p key={note} className="border-t border-line px-3 py-1 text-[0.78rem] text-soft">
      {note}
    </p>
  ));
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

/** The program of the chosen language: its files, and the editor of one of them. */
function Program({
  props,
  handle,
  file,
  onFile,
}: { props: Props; handle: Ref<EditorHandle> } & Omit<FilesProps, 'files'>) {
  const { shown, response, onChange, target } = props;
  const { language } = response;
  const files = filesAsked(shown, language);
  const own = files.find(({ name }) => name === file) ?? files[0]!;
  const write = (text: string) => {
    const before = response.programs[language] ?? {};
    onChange({
      ...response,
      programs: { ...response.programs, [language]: { ...before, [own.name]: text } },
    });
  };
  const label = t(files.length > 1 ? 'editorOf' : 'editor', {
    language: languageNames[language],
    file: own.name,
  });
  return (
    <>
      {files.length > 1 && <FileTabs files={files} file={own.name} onFile={onFile} />}
      <CodeEditor
        key={`${target} ${language} ${own.name}`}
        stateKey={`${target} ${language} ${own.name}`}
        language={language}
        file={own.open ? { ...own, text: textOf(response, own) } : { head: '', text: own.text, tail: '' }}
        readOnly={!own.open}
        label={label}
        help={t('leave')}
        onChange={write}
        handle={handle}
      />
    </>
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
  const { shown, response, onChange, prompt, promptId } = props;
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
  const { milliseconds, megabytes } = limitsOf(shown, language);
  const shownTab = narrow ? tab : null;
  const note = t('rest', { count: shown.hiddenCases });
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
          <div className="flex flex-wrap items-center gap-2 border-b border-line bg-paper px-3 py-1.5">
            <Languages {...{ shown, response, onChange }} />
            <span className="flex-1" />
            <span className="text-[0.82rem] text-soft">
              {t('limits', { seconds: milliseconds / 1000, megabytes })}
            </span>
          </div>
          {/* Whoever begins with the program will want to run it; who still chooses its language wants one engine alone. */}
          <div className="contents" onFocus={trial.getReady}>
            <Program props={props} handle={editor} file={file} onFile={setFile} />
            {narrow && (
              <SignRow
                indent={language === 'python' ? '    ' : '  '}
                onSign={(sign) => editor.current?.insert(sign)}
              />
            )}
          </div>
          <WayNote shown={shown} language={language} />
          {!narrow && <p className="border-t border-line px-3 py-1 text-[0.78rem] text-soft">{t('leave')}</p>}
        </Side>
        <Side name="cases" tab={shownTab} onFocus={trial.getReady}>
          {shown.fixtures.length > 0 && <SqlTables fixtures={shown.fixtures} />}
          <CaseTable shown={shown} language={language} trial={trial} note={note} onJump={jump} />
        </Side>
      </div>
    </Tabs.Root>
  );
}
