import { CircleDashed } from 'lucide-react';
import { useCallback, useContext, useId, useMemo } from 'react';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { responseOrEmpty, storeResponse } from '../../core/kinds/stored';
import type { ShownPart } from '../../core/papers/candidatePaper';
import { progressOfResponse } from '../../core/sittings/progress';
import { MINUTE_MS } from '../../core/timing/deadline';
import type { PhoneHandle } from '../kinds/answerProps';
import { answers, hasVersions, layoutOf } from '../kinds/answers';
import { useReady } from '../ui/ComponentShelf';
import { DocumentView } from '../documents/DocumentView';
import { say } from '../words';
import type { PhraseUse } from '../documents/phrases';
import { useAidsOf } from '../kit/useAid';
import { useDesk } from './DeskContext';
import { PhraseDeskContext } from './phraseDesk';
import { marksWords } from './Rail';
import { OtherVersion, Versions } from './Versions';

/** What highlights of a prompt are kept under. */
const promptText = ({ target, key }: ShownPart) => ({
  target: target.slice(0, target.lastIndexOf('/')),
  name: `part-${key.toLowerCase()}`,
});

/** What is still missing, in words; also what the answer's fields are described by. */
function Need({ id, part }: { id: string; part: ShownPart }) {
  const stored = useDesk((s) => s.desk.answers[part.target]);
  // Worked out when the answer changes, not whenever the desk does, which is four times a second.
  const missing = useMemo(() => {
    const { state, missing: what } = progressOfResponse(part, stored);
    return state === 'part' && what ? say(what) : null;
  }, [part, stored]);
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

/** The last value of each event of a part's kind, by name. */
function useEvents({ kind, target }: ShownPart): Readonly<Record<string, unknown>> {
  const events = useDesk((s) => s.desk.events);
  return useMemo(() => {
    const names = candidateKindOf(kind).events;
    return Object.fromEntries(names.map((name) => [name, events[`${target}/${name}`]]));
  }, [events, kind, target]);
}

/** A phone for a part, where the round allows one; the time is told to the minute. */
function usePhone(target: string): PhoneHandle | null {
  const allowed = useDesk((s) => s.live?.pages?.phones === true);
  const help = useDesk((s) => s.help);
  const open = useDesk((s) => (s.live?.pages?.phone?.target === target ? s.live.pages.phone : null));
  const now = useDesk((s) => Math.floor(s.now / MINUTE_MS) * MINUTE_MS);
  return useMemo(
    () =>
      allowed && help
        ? {
            open: open && open.until > now ? open : null,
            now,
            join: () => help.joinPhone(target),
            end: () => help.endPhone(),
          }
        : null,
    [allowed, help, open, now, target],
  );
}

/** The answering component of a part's kind, once it is here. */
function useComponent(part: ShownPart, ids: { readonly promptId: string; readonly needId: string }) {
  const stored = useDesk((s) => s.desk.answers[part.target]);
  const answer = useDesk((s) => s.answer);
  const event = useDesk((s) => s.event);
  const restored = useDesk((s) => s.restored);
  const events = useEvents(part);
  const { kind, target, shown, prompt } = part;
  const response = useMemo(() => responseOrEmpty(kind, shown, stored), [kind, shown, stored]);
  const onEvent = useCallback(
    (name: string, value: unknown) => event(`${target}/${name}`, value),
    [event, target],
  );
  const { phrases, use } = useContext(PhraseDeskContext);
  const source = useMemo(
    () => ({ phrases, use: (own: PhraseUse | null) => use(target, own) }),
    [phrases, use, target],
  );
  const aids = useAidsOf(target.split('/')[0]!);
  const files = useDesk((s) => s.pages);
  const phone = usePhone(target);
  if (!useReady(answers, kind)) return null;
  return answers.draw(kind, {
    // An editor starts again with a version that was brought back.
    key: `${target} ${restored}`,
    shown,
    response,
    events,
    onEvent,
    prompt,
    target,
    source,
    aids,
    files,
    phone,
    ...ids,
    onChange: (next) => answer(target, storeResponse(kind, next)),
  });
}

/** One part of a question: its letter and prompt, the answering component of its kind, and what is missing. */
export function PartView({ part, several }: { part: ShownPart; several: boolean }) {
  const [promptId, needId] = [useId(), useId()];
  const help = useDesk((s) => s.help);
  const { touch } = useContext(PhraseDeskContext);
  const component = useComponent(part, { promptId, needId });
  const whole = layoutOf(part.kind) === 'whole';
  return (
    <section className={whole ? '' : 'mb-5'} onFocusCapture={() => touch(part.target)}>
      <div className="mb-2 flex items-baseline gap-2.5">
        {several && (
          <h2 className="font-serif text-[1.15rem] leading-none font-bold text-kelp">{part.key}</h2>
        )}
        {!whole && (
          <div id={promptId} className="max-w-[70ch] min-w-0 flex-1">
            <DocumentView document={part.prompt} text={promptText(part)} />
          </div>
        )}
        {several && (
          <span className="ml-auto text-[0.84rem] whitespace-nowrap text-soft">{marksWords(part.marks)}</span>
        )}
      </div>
      <OtherVersion part={part} />
      {component}
      <Need id={needId} part={part} />
      {part.rule && <p className="text-[0.82rem] text-soft">{say(part.rule)}</p>}
      {help && hasVersions(part.kind) && <Versions part={part} />}
    </section>
  );
}
