import { Lock } from 'lucide-react';
import { RadioGroup } from 'radix-ui';
import { useState, type Ref, type RefObject } from 'react';
import { filesAsked, limitsOf, textOf } from '../../../core/kinds/code/program';
import {
  FILE_MOST,
  lengthOf,
  PROGRAMS_MOST,
  type AskedFile,
  type CodeResponse,
  type CodeShown,
  type Language,
} from '../../../core/kinds/code/response';
import { words } from '../../words';
import type { AnswerProps } from '../answerProps';
import { CodeEditor, type EditorHandle } from './CodeEditor';
import { languageNames } from '../../../core/programs/languages';
import { SignRow } from './SignRow';

const t = words('codeProgram', {
  language: 'Language',
  limits: '{{seconds}} s and {{megabytes}} MB per case',
  editor: 'Program in {{language}}',
  editorOf: '{{file}}, program in {{language}}',
  files: 'Files',
  locked: '{{name}}, cannot be changed',
  scriptStreams:
    'readLine() gives the next line of the input, or null at its end; readText() gives the rest. Write with console.log().',
  pythonStreams: 'Read the input with input() or sys.stdin. Write with print().',
  types: 'Types of TypeScript are removed before the program runs. They are not checked.',
  full: 'The program is as long as it may be. What you added last was not taken. Remove something first.',
  leave: 'Tab indents. Press Esc and then Tab to leave the editor.',
});

type Props = AnswerProps<CodeShown, CodeResponse>;

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

/** The program of the chosen language: its files, and the editor of one of them. */
function Program({
  props,
  handle,
  file,
  onFile,
}: { props: Props; handle: Ref<EditorHandle> } & Omit<FilesProps, 'files'>) {
  const { shown, response, onChange, target } = props;
  const { language } = response;
  const [full, setFull] = useState(false);
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
        most={Math.min(FILE_MOST, PROGRAMS_MOST - lengthOf(response) + textOf(response, own).length)}
        onFull={setFull}
        handle={handle}
      />
      {full && (
        <p role="alert" className="border-t border-line px-3 py-1 text-[0.85rem] text-brick">
          {t('full')}
        </p>
      )}
    </>
  );
}

interface PaneProps extends Omit<FilesProps, 'files'> {
  readonly props: Props;
  readonly narrow: boolean;
  readonly editor: RefObject<EditorHandle | null>;
  /** The candidate begins with the program. */
  readonly onReady: () => void;
}

/** The program: its language, its limits, its files, and what is to be known about writing it. */
export function ProgramPane({ props, narrow, editor, file, onFile, onReady }: PaneProps) {
  const { shown, response, onChange } = props;
  const { language } = response;
  const { milliseconds, megabytes } = limitsOf(shown, language);
  return (
    <>
      <div className="flex flex-wrap items-center gap-2 border-b border-line bg-paper px-3 py-1.5">
        <Languages {...{ shown, response, onChange }} />
        <span className="flex-1" />
        <span className="text-[0.82rem] text-soft">
          {t('limits', { seconds: milliseconds / 1000, megabytes })}
        </span>
      </div>
      {/* Whoever begins with the program will want to run it; who still chooses its language wants one engine alone. */}
      <div className="contents" onFocus={onReady}>
        <Program props={props} handle={editor} file={file} onFile={onFile} />
        {narrow && (
          <SignRow
            indent={language === 'python' ? '    ' : '  '}
            onSign={(sign) => editor.current?.insert(sign)}
          />
        )}
      </div>
      <WayNote shown={shown} language={language} />
      {!narrow && <p className="border-t border-line px-3 py-1 text-[0.78rem] text-soft">{t('leave')}</p>}
    </>
  );
}
