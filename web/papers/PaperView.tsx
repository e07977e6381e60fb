import { useState } from 'react';
import { candidateKindOf } from '../../core/kinds/candidateKinds';
import { showMarks } from '../../core/marks';
import type { CandidatePaper, Question, ShownPart } from '../../core/papers/candidatePaper';
import { DocumentView } from '../documents/DocumentView';
import { WithMedia } from '../documents/Picture';
import { answers, layoutOf } from '../kinds/answers';
import { say } from '../words';

/** A part that can be tried out; what is tried here is kept nowhere. */
function TryPart({ part, several }: { part: ShownPart; several: boolean }) {
  const [response, setResponse] = useState(() => candidateKindOf(part.kind).empty(part.shown));
  const [events, setEvents] = useState<Readonly<Record<string, unknown>>>({});
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
      {answers.draw(part.kind, {
        shown: part.shown,
        response,
        onChange: setResponse,
        events,
        onEvent: (name, value) => setEvents({ ...events, [name]: value }),
        promptId,
        needId: `${promptId}-need`,
        prompt: part.prompt,
        target: part.target,
      })}
      <p id={`${promptId}-need`} className="pt-1 text-[0.88rem] text-marigold">
        {missing && say(missing)}
      </p>
    </div>
  );
}

function QuestionCard({ question }: { question: Question }) {
  return (
    <article className="mb-4 rounded-card border border-line bg-card p-5">
      <h3 className="flex justify-between gap-4 font-serif text-[1.2rem] font-semibold">
        <span>
          {question.number} · {question.title}
        </span>
        <span className="font-sans text-[0.95rem] font-normal text-soft">{showMarks(question.marks)}</span>
      </h3>
      {question.source?.tabs.map((tab) => (
        <details key={tab.title} className="mt-2">
          <summary className="text-slate">{tab.title}</summary>
          <DocumentView document={tab.body} className="mt-2 border-l-2 border-line pl-4 font-serif" />
        </details>
      ))}
      {question.parts.map((part) => (
        <TryPart key={part.target} part={part} several={question.parts.length > 1} />
      ))}
    </article>
  );
}

/** What draws the answers of a paper, to be fetched before it is shown. */
export const loadAnswers = (paper: CandidatePaper): Promise<void> =>
  answers.load(paper.questions.flatMap((q) => q.parts.map((p) => p.kind)));

/** A whole paper with the candidate's own components, from the candidate's copy: no key is in it. */
export function PaperView({ paper }: { readonly paper: CandidatePaper }) {
  return (
    <WithMedia media={paper.media}>
      {paper.sections.map((section) => (
        <section key={section.key} className="max-w-[60rem]">
          <h2 className="mt-2 text-[1.1rem]">
            <b>{section.key}</b> {section.title}
          </h2>
          <DocumentView document={section.introduction} className="mb-3 text-soft" />
          {paper.questions
            .filter((q) => q.section === section.key)
            .map((q) => (
              <QuestionCard key={q.item} question={q} />
            ))}
        </section>
      ))}
    </WithMedia>
  );
}
