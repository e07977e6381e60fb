import type { Document } from '../../../core/documents/document';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { RadioGroup, Tabs } from 'radix-ui';
import { useState } from 'react';
import type { CodeResponse, CodeShown, Language } from '../../../core/kinds/code/response';
import { DocumentView } from '../../documents/DocumentView';
import { TabStrip } from '../../ui/Tabs';
import { useNarrow } from '../../ui/useNarrow';
import { words } from '../../words';
import type { AnswerProps } from '../answerProps';
import { CodeEditor } from './CodeEditor';
import { languageNames } from './languageNames';
import { CaseTable } from './CaseTable';
import { programOf, useTrial } from './useTrial';

const t = words('code', {
  brief: 'Task',
  program: 'Program',
  cases: 'Cases',
  language: 'Language',
  fold: 'fold',
  unfold: 'unfold',
  limits: '{{seconds}} s and {{megabytes}} MB per case',
  editor: 'Program in {{language}}',
  rest_one: 'These runs do not count. {{count}} hidden case is run after you hand in.',
  rest_other: 'These runs do not count. {{count}} hidden cases are run after you hand in.',
  leave: 'Tab indents. Press Esc and then Tab to leave the editor.',
});

type Props = AnswerProps<CodeShown, CodeResponse>;

function Brief({ prompt, promptId, folds }: { prompt: Document; promptId: string; folds: boolean }) {
  const [open, setOpen] = useState(true);
  // In a tab of its own it has all the room there is.
  if (!folds)
    return (
      <div id={promptId}>
        <DocumentView document={prompt} className="font-serif text-[1.03rem]" />
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
      className="flex gap-1"
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

/** A program: the brief on top, the program and the table of cases below it; three tabs on a narrow screen. */
export function Answer(props: Props) {
  const { shown, response, onChange, prompt, promptId, target } = props;
  const program = programOf(shown, response);
  const trial = useTrial(shown, response);
  const narrow = useNarrow();
  const [tab, setTab] = useState<Tab>('brief');
  const { language } = response;
  const write = (program: string) =>
    onChange({ ...response, programs: { ...response.programs, [language]: program } });
  const limits = { seconds: shown.limits.milliseconds / 1000, megabytes: shown.limits.megabytes };
  const shownTab = narrow ? tab : null;
  return (
    <Tabs.Root
      value={tab}
      onValueChange={(name) => setTab(name as Tab)}
      className="flex h-full min-h-0 flex-col gap-2.5"
    >
      {narrow && <TabStrip names={TABS} titleOf={(name) => t(name)} />}
      <Side name="brief" tab={shownTab}>
        <Brief prompt={prompt} promptId={promptId} folds={!narrow} />
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
            <span className="text-[0.82rem] text-soft">{t('limits', limits)}</span>
          </div>
          {/* Whoever begins with the program will want to run it; who still chooses its language wants one engine alone. */}
          <div className="contents" onFocus={trial.getReady}>
            <CodeEditor
              key={`${target} ${language}`}
              language={language}
              program={program}
              label={t('editor', { language: languageNames[language] })}
              help={t('leave')}
              onChange={write}
            />
          </div>
          <p className="border-t border-line px-3 py-1 text-[0.78rem] text-soft">{t('leave')}</p>
        </Side>
        <Side name="cases" tab={shownTab} onFocus={trial.getReady}>
          <CaseTable shown={shown} trial={trial} note={t('rest', { count: shown.hiddenCases })} />
        </Side>
      </div>
    </Tabs.Root>
  );
}
