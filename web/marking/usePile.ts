import { useRef, useState } from 'react';
import type {
  GivenReply,
  MarkedScript,
  MarkingScript,
  MarkingTableData,
  MarkStanding,
  StandardTold,
} from '../../core/marking/api';
import type { MarkDraft } from '../../core/marking/mark';
import { marksGiven } from '../../core/marking/marksGiven';
import { CORRECTION_MS } from '../../core/marking/standardisation';
import { sumMarks } from '../../core/marks';
import { ApiProblem, get, messageOf, post } from '../api/client';
import { readings } from '../kinds/readings';
import { useFetched } from '../staff/queries';
import { atRest } from '../ui/atRest';
import { dropDraft } from './draftStore';
import type { Stale } from './StaleMark';

/** What was given, as it is listed before the server has told of it. */
function justMarked({ task, script, components }: MarkingScript, mark: MarkDraft): MarkedScript {
  const { marks } = marksGiven(components, mark.given);
  const total = sumMarks(marks.map(({ hundredths }) => hundredths));
  return { task, script, total, at: Date.now(), words: mark.comment };
}

/** The pile of an assessor: the script in view, and what is done with scripts. Marks go behind the next script. */
export function usePile(path: string) {
  const [told, setTold] = useState<StandardTold | null>(null);
  const [stale, setStale] = useState<Stale | null>(null);
  /** A script that was passed on some time ago, and may be changed after a question. */
  const [asked, setAsked] = useState<MarkedScript | null>(null);
  const [passedAt, setPassedAt] = useState(0);
  const sending = useRef<Promise<unknown>>(Promise.resolve());
  const [trouble, setTrouble] = useState<string | null>(null);
  const [sent, setSent] = useState<ReadonlySet<number>>(new Set());
  const unsend = (task: number) => setSent((known) => new Set([...known].filter((one) => one !== task)));
  /** Something was passed since the pile was last looked at: that nothing is here does not mean that nothing is left. */
  const [passed, setPassed] = useState(false);
  const [loaded, reload, replace] = useFetched(path, async () => {
    const table = await get<MarkingTableData>(path);
    setPassed(false);
    await readings.load(table.scripts.map((s) => s.kind));
    return table;
  });
  if (loaded.state !== 'here') return { loaded, pile: null };
  const table = loaded.value;
  // What is on its way is not shown again, whenever the pile was last looked at.
  const script = table.scripts.find((one) => !sent.has(one.task)) ?? null;
  /** The next response is already here: it is shown at once, and the pile is looked at again behind it. */
  const pass = (task: number, change: Partial<MarkingTableData> = {}) => {
    replace({ ...table, ...change, scripts: table.scripts.filter((one) => one.task !== task) });
    setPassed(true);
  };
  const send = (of: MarkingScript, mark: MarkDraft, seen: number | null) => {
    setTrouble(null);
    setSent((known) => new Set(known).add(of.task));
    sending.current = post<GivenReply>(`/marking/tasks/${of.task}`, { ...mark, seen }).then(
      (reply) => {
        dropDraft(of.task);
        if (reply.told) setTold(reply.told);
        atRest(reload);
      },
      (problem: unknown) => {
        if (problem instanceof ApiProblem && problem.code === 'mark-given-elsewhere')
          return setStale({ script: of, mark, standing: problem.details as MarkStanding });
        // One that is refused brings its script back, as it was kept on this device.
        setTrouble(messageOf(problem));
        unsend(of.task);
        replace(table);
      },
    );
  };
  const give = (of: MarkingScript, mark: MarkDraft) => {
    setPassedAt(Date.now());
    // What is taken back next is this one, also before its mark has arrived.
    pass(of.task, { last: justMarked(of, mark), byYou: table.byYou + 1, left: table.left - 1 });
    send(of, mark, of.seen);
  };
  const decide = (which: 'keep' | 'replace') => {
    const { script: of, mark, standing } = stale!;
    setStale(null);
    if (which === 'replace') return send(of, mark, standing.judgement);
    dropDraft(of.task);
    reload();
  };
  const takeBack = (task: number) => {
    setTrouble(null);
    setAsked(null);
    dropDraft(task);
    unsend(task);
    // A mark that is on its way arrives before it is taken back.
    void sending.current
      .then(() => post(`/marking/tasks/${task}/take-back`))
      .then(reload, (problem: unknown) => setTrouble(messageOf(problem)));
  };
  const { last } = table;
  /** At once while it was just passed on; later it is asked first, whatever script it is. */
  const takeLastBack = last
    ? () => (Date.now() - passedAt < CORRECTION_MS ? takeBack(last.task) : setAsked(last))
    : null;
  const readTold = () => {
    const [next] = table.told;
    if (told || !next) return setTold(null);
    replace({ ...table, told: table.told.slice(1) });
    void post(`/marking/tasks/${next.task}/told`).catch(() => undefined);
  };
  const setAside = (task: number) => {
    pass(task);
    reload();
  };
  return {
    loaded,
    pile: {
      table,
      script,
      passed,
      trouble,
      stale,
      decide,
      asked,
      keepAsked: () => setAsked(null),
      told: told ?? table.told[0] ?? null,
      readTold,
      give,
      setAside,
      takeBack,
      takeLastBack,
      replace,
    },
  };
}
