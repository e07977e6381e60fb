import type { Document } from '../../core/documents/document';
import type { Question } from '../../core/papers/candidatePaper';
import { DocumentView, type TextName } from '../documents/DocumentView';
import { Inlines } from '../documents/Inlines';
import { useNarrow } from '../ui/useNarrow';
import { useDesk } from './DeskContext';
import { t } from './words';

/** An introduction; candidates can fold it away. */
function Fold({
  title,
  body,
  text,
  open,
}: {
  readonly title: string;
  readonly body: Document;
  readonly text: TextName;
  readonly open: boolean;
}) {
  const [first] = body.blocks;
  if (!first) return null;
  return (
    <details open={open} className="group mb-4 rounded-control border border-line bg-card px-4 py-2">
      <summary className="min-h-8 py-1 text-[0.92rem] font-semibold">
        {title}
        {/* Its beginning stays in view, so that nobody takes it for a heading alone. */}
        {first.type === 'paragraph' && (
          <span aria-hidden className="line-clamp-1 font-normal text-soft group-open:hidden">
            <Inlines of={first.children} />
          </span>
        )}
      </summary>
      <DocumentView document={body} text={text} className="pt-1 pb-2" />
    </details>
  );
}

/** What the section says before its first question, and what a question says before it asks. */
export function Introductions({ question }: { readonly question: Question }) {
  const section = useDesk((s) => s.paper.sections.find((one) => one.key === question.section));
  const first = useDesk((s) => s.paper.questions.find((one) => one.section === question.section));
  // A phone shows the first ones; later the question itself comes first, and they are one press away.
  const unfolded = !useNarrow() || question.number === 1;
  return (
    <>
      {section && first?.item === question.item && (
        <Fold
          title={t('introduction', { key: section.key })}
          body={section.introduction}
          text={{ target: question.item, name: 'section' }}
          // Where the section was entered by a door, it was read there.
          open={section.minutes === null && unfolded}
        />
      )}
      <Fold
        title={t('questionIntroduction')}
        body={question.introduction}
        text={{ target: question.item, name: 'introduction' }}
        open={unfolded}
      />
    </>
  );
}
