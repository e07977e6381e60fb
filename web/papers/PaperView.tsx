import { useState } from 'react';
import type { AidName } from '../../core/kit/aids';
import { message } from '../../core/messages/message';
import type { Document } from '../../core/documents/document';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { showMarks } from '../../core/marks';
import { typesIn } from '../../core/documents/everyNode';
import {
  documentsIn,
  type CandidatePaper,
  type Question,
  type ShownPart,
} from '../../core/papers/candidatePaper';
import { DocumentView } from '../documents/DocumentView';
import { loadNodes } from '../documents/lazyNodes';
import { Files, type FileSource } from '../media/fileSource';
import { RecordingsOf } from '../media/recordings';
import { useRecordings } from '../media/useRecordings';
import { noSource } from '../kinds/answerProps';
import { answers, layoutOf } from '../kinds/answers';
import { PageBox } from '../pages/pageBox';
import { say } from '../words';

/** A part that can be tried out; what is tried here is kept nowhere. */
interface TryPartProps {
  readonly part: ShownPart;
  readonly several: boolean;
  readonly aids: readonly AidName[];
}

function TryPart({ part, several, aids }: TryPartProps) {
  const [response, setResponse] = useState(() => candidateKindOf(part.kind).empty(part.shown));
  const [events, setEvents] = useState<Readonly<Record<string, unknown>>>({});
  const [pages] = useState(() => new PageBox(null));
  const promptId = `prompt-${part.target}`;
  const whole = layoutOf(part.kind) === 'whole';
  const { missing } = candidateKindOf(part.kind).progress(part.shown, response);
  return (
    <div className="mt-4">
      {!whole && (
        <div id={promptId} className="mb-2 flex gap-2.5">
          {several && <span className="font-serif font-bold text-kelp">{part.key}</span>}
          <DocumentView document={part.prompt} />
        </div>
      )}
      {answers.drawGuarded(part.kind, {
        shown: part.shown,
        response,
        onChange: setResponse,
        events,
        onEvent: (name, value) => setEvents({ ...events, [name]: value }),
        promptId,
        needId: `${promptId}-need`,
        prompt: part.prompt,
        target: part.target,
        source: noSource,
        files: pages,
        phone: null,
        aids,
      })}
      <p id={`${promptId}-need`} className="pt-1 text-[0.88rem] text-marigold">
        {missing && say(missing)}
      </p>
    </div>
  );
}

/** A tab of a source, or a handout; drawn once it is opened, since it may be large. */
function Folded({ title, body }: { readonly title: string; readonly body: Document }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="mt-2" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="text-slate">{title}</summary>
      {open && <DocumentView document={body} className="mt-2 border-l-2 border-line pl-4 font-serif" />}
    </details>
  );
}

function QuestionCard({
  question,
  aids,
}: {
  readonly question: Question;
  readonly aids: readonly AidName[];
}) {
  return (
    <article className="mb-4 rounded-card border border-line bg-card p-5">
      <h3 className="flex justify-between gap-4 font-serif text-[1.2rem] font-semibold">
        <span>
          {question.number} · {question.title}
        </span>
        <span className="font-sans text-[0.95rem] font-normal text-soft">{showMarks(question.marks)}</span>
      </h3>
      <DocumentView document={question.introduction} className="mt-2 text-soft empty:hidden" />
      {question.source?.tabs.map((tab) => (
        <Folded key={tab.title} title={tab.title} body={tab.body} />
      ))}
      {question.parts.map((part) => (
        <TryPart key={part.target} part={part} several={question.parts.length > 1} aids={aids} />
      ))}
    </article>
  );
}

/** What draws the answers of a paper, to be fetched before it is shown. */
export const loadAnswers = async (paper: CandidatePaper): Promise<void> => {
  await Promise.all([
    answers.load(paper.questions.flatMap((q) => q.parts.map((p) => p.kind))),
    loadNodes(typesIn(documentsIn(paper))),
  ]);
};

/** How one goes through a section, and the aids that it allows. */
const sectionLine = ({ navigation, aids }: CandidatePaper['sections'][number]): string =>
  [`navigation.${navigation}`, ...aids.map((name) => `aid.${name}`)]
    .map((code) => say(message(code)))
    .join(' · ');

/** A whole paper with the candidate's own components, from the candidate's copy: no key is in it. */
export function PaperView({ paper, files }: { readonly paper: CandidatePaper; readonly files: FileSource }) {
  const recordings = useRecordings(files);
  return (
    <Files value={files}>
      <RecordingsOf value={recordings}>
        {paper.sections.map((section) => (
          <section key={section.key} className="max-w-[60rem]">
            <h2 className="mt-2 text-[1.1rem]">
              <b>{section.key}</b> {section.title}
            </h2>
            <p className="text-[0.92rem] text-soft">{sectionLine(section)}</p>
            <DocumentView document={section.introduction} className="mb-3 text-soft" />
            {section.handouts.map((handout) => (
              <Folded key={handout.key} title={handout.title} body={handout.body} />
            ))}
            {paper.questions
              .filter((q) => q.section === section.key)
              .map((q) => (
                <QuestionCard key={q.item} question={q} aids={section.aids} />
              ))}
          </section>
        ))}
      </RecordingsOf>
    </Files>
  );
}
