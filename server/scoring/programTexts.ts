import type { CaseOutcome, StructureRun } from '../../core/kinds/evidence';
import { MAIN_FILES } from '../../core/programs/engine';
import { hasCycle, PYTHON_STRUCTURE, type Structure } from '../../core/programs/structure';
import { entriesOf, isList, type Value } from '../../core/programs/value';
import { MachineTrouble, type Sandbox } from '../sandbox/sandbox';
import { WarmWorker } from './warmWorker';

const LIMITS = { taskMs: 5000, megabytes: 256 };
const PYTHON_LIMITS = { milliseconds: 5000, megabytes: 128, outputBytes: 64 * 1024 };

const listIn = (map: ReadonlyMap<Value, Value>, name: string): readonly Value[] => {
  const found = map.get(name);
  return found !== undefined && isList(found) ? found.slice(1) : [];
};

interface Look extends Omit<Structure, 'recursion'> {
  readonly calls: readonly (readonly [within: string, called: string])[];
}

/** What Python's own parser said of one file; null where it could not read it. */
function lookOf(outcome: CaseOutcome): Look | null {
  if (outcome.result !== 'returned' || !isList(outcome.value)) return null;
  const map = new Map(entriesOf(outcome.value.slice(1)));
  const texts = (name: string) => listIn(map, name).filter((one) => typeof one === 'string');
  const lines = map.get('lines');
  return {
    calls: listIn(map, 'calls').map((call) => (call as readonly Value[]).slice(1) as [string, string]),
    loop: map.get('loop') === true,
    names: texts('names'),
    imports: texts('imports'),
    lines: lines !== undefined && isList(lines) ? Number(lines[1]) : 0,
  };
}

function together(looks: readonly Look[]): Structure {
  const calls = new Map<string, Set<string>>();
  for (const [within, called] of looks.flatMap((look) => look.calls)) {
    // Calls outside of any function are no function's.
    if (within === '') continue;
    const own = calls.get(within) ?? new Set();
    calls.set(within, own);
    if (called !== '') own.add(called);
  }
  const all = (of: (look: Look) => readonly string[]) => [...new Set(looks.flatMap(of))].sort();
  return {
    recursion: hasCycle(calls),
    loop: looks.some((look) => look.loop),
    names: all((look) => look.names),
    imports: all((look) => look.imports),
    lines: looks.reduce((sum, look) => sum + look.lines, 0),
  };
}

/** Looks at the texts of programs by the parsers of their languages: Python's in the sandbox, that of scripts in a worker. */
export class ProgramTexts {
  private readonly sandbox: Sandbox;
  private readonly worker = new WarmWorker<StructureRun, Structure | null>(
    new URL('./structureWorker.ts', import.meta.url),
    LIMITS,
  );

  constructor(sandbox: Sandbox) {
    this.sandbox = sandbox;
  }

  /** Null where the text cannot be read as a program. Throws where it could not be looked at. */
  async look(run: StructureRun, owner: string): Promise<Structure | null> {
    if (run.language === 'python') return this.lookAtPython(run, owner);
    const [worked] = await this.worker.work([run]);
    if (worked && 'result' in worked) return worked.result;
    // A text on which the parser breaks down, nested a hundred thousand deep, is none that can be read.
    if (worked?.ended === 'threw') return null;
    throw new MachineTrouble(`the text of a program could not be read: ${worked?.trouble ?? ''}`);
  }

  close(): Promise<void> {
    return this.worker.close();
  }

  private async lookAtPython({ files }: StructureRun, owner: string): Promise<Structure | null> {
    const cases = files.map(({ text }, i) => ({ key: String(i), input: JSON.stringify([text]), files: [] }));
    const own = [{ name: MAIN_FILES.python, text: PYTHON_STRUCTURE }];
    const run = {
      language: 'python',
      files: own,
      functionName: 'look',
      cases,
      limits: PYTHON_LIMITS,
    } as const;
    const looks = (await this.sandbox.run(run, owner)).map(lookOf);
    return looks.includes(null) ? null : together(looks as Look[]);
  }
}

export interface HasProgramTexts {
  readonly programTexts: ProgramTexts;
}
