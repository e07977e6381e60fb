import { CircleDashed } from 'lucide-react';
import { useId, useMemo } from 'react';
import { kindOf } from '../../core/kinds/registry';
import type { ShownPart } from '../../core/papers/candidatePaper';
import { progressOfPart } from '../../core/sittings/progress';
import { answers, hasVersions, layoutOf } from '../kinds/answers';
import { useReady } from '../kinds/loadComponents';
import { Passage } from '../ui/Passage';
import { useDesk } from './DeskContext';
import { marksWords } from './Rail';
import { OtherVersion, Versions } from './Versions';

/** What is still missing, in words; also what the answer's fields are described by. */
function Need({ id, part }: { id: string; part: ShownPart }) {
  const missing = useDesk((s) => {
    const { state, missing: words } = progressOfPart(s.desk, part);
    return state === 'part' ? words : null;
  });
  return (
    <p id={id} role="status" className="flex min-h-6 items-center gap-1.5 text-[0.88rem] text-marigold">
      {missing && (
        <>
          <CircleDashed aria-hidden className="size-4 flex-none" /> {missing}
        </>
      )}
    </p>
  );
}

/** One part of a question: its letter and prompt, the answering component of its kind, and what is missing. */
export function PartView({ part, several }: { part: ShownPart; several: boolean }) {
  const promptId = useId();
  const needId = useId();
  const response = useDesk((s) => s.desk.answers[part.target]);
  const struck = useDesk((s) => s.desk.struck[part.target]);
  const answer = useDesk((s) => s.answer);
  const strike = useDesk((s) => s.strike);
  const restored = useDesk((s) => s.restored);
  const help = useDesk((s) => s.help);
  const empty = useMemo(() => kindOf(part.kind).empty(part.shown), [part]);
  const ready = useReady(answers, part.kind);
  const whole = layoutOf(part.kind) === 'whole';
  const component =
    ready &&
    answers.draw(part.kind, {
      // An editor begins anew with a version that was brought back.
      key: `${part.target} ${restored}`,
      shown: part.shown,
      response: response ?? empty,
      onChange: (next) => answer(part.target, next),
      struck: struck ?? [],
      onStrike: (next) => strike(part.target, next),
      prompt: part.prompt,
      target: part.target,
      promptId,
      needId,
    });
  const versions = help && hasVersions(part.kind) && <Versions part={part} />;
  if (whole)
    return (
      <div>
        <OtherVersion part={part} />
        {component}
        {versions && <div className="pt-2">{versions}</div>}
      </div>
    );
  return (
    <section className="mb-5">
      <div className="mb-2 flex items-baseline gap-2.5">
        {several && (
          <h2 className="font-serif text-[1.15rem] leading-none font-bold text-kelp">{part.key}</h2>
        )}
        <div id={promptId} className="min-w-0 flex-1">
          <Passage text={part.prompt} />
        </div>
        {several && (
          <span className="text-[0.84rem] whitespace-nowrap text-soft">{marksWords(part.marks)}</span>
        )}
      </div>
      <OtherVersion part={part} />
      {component}
      <Need id={needId} part={part} />
      {part.rule && <p className="text-[0.82rem] text-soft">{part.rule}</p>}
      {versions}
    </section>
  );
}
