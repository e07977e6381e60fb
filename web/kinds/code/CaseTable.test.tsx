import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterAll, beforeEach, expect, it, vi } from 'vitest';
import type { CodeAsked } from '../../../core/kinds/code/content';
import { samples } from '../../../core/kinds/code/samples';
import { codeKey } from '../../../core/kinds/code/key';
import type { CodeResponse, CodeShown } from '../../../core/kinds/code/response';
import type { CaseJob, EngineReply } from '../../../core/programs/engine';
import { CaseTable } from './CaseTable';
import { useTrial } from './useTrial';

/* The table of cases with an engine that answers when the test says so. */

type Told = { readonly ready: true } | EngineReply;
class FakeWorker {
  static all: FakeWorker[] = [];
  onmessage: ((event: { data: Told }) => void) | null = null;
  readonly jobs: CaseJob[] = [];
  ended = false;
  constructor() {
    FakeWorker.all.push(this);
  }
  postMessage(job: CaseJob) {
    this.jobs.push(job);
  }
  terminate() {
    this.ended = true;
  }
}
vi.stubGlobal('Worker', FakeWorker);
afterAll(() => vi.unstubAllGlobals());

const engine = () => FakeWorker.all.findLast((one) => !one.ended)!;
/** Lets what follows from it happen, too. */
const tell = (data: Told) =>
  act(async () => {
    engine().onmessage!({ data });
    await Promise.resolve();
  });
const reply = (more: Partial<EngineReply>): EngineReply => ({
  limit: 'none',
  cpuMs: 3,
  memoryBytes: 0,
  printed: '',
  reply: 'null',
  ...more,
});
const whole = (n: number) => reply({ reply: JSON.stringify({ value: ['i', String(n)] }) });
const input = () => engine().jobs.at(-1)!.input;

const [{ content, best }] = samples as [(typeof samples)[number]];
const place = { locale: 'en', marks: 200, source: null };
const shownOf = (more: Partial<CodeAsked> = {}): CodeShown =>
  codeKey.show({ ...content.asked, ...more }, null, place);

const runs = vi.fn<(cases: readonly { readonly key: string; readonly verdict: string }[]) => void>();
function Table({ shown, language = 'python' }: { shown: CodeShown; language?: CodeResponse['language'] }) {
  const [inputs, setInputs] = useState<readonly string[]>([]);
  const [response, setResponse] = useState<CodeResponse>({ ...best, language });
  const trial = useTrial(shown, response, { inputs, onInputs: setInputs, onRun: runs });
  return (
    <>
      <button
        onClick={() =>
          setResponse({
            ...response,
            programs: { [language]: { 'program.py': 'def double(n):\n    pass\n' } },
          })
        }
      >
        change
      </button>
      <CaseTable shown={shown} language={language} trial={trial} note="" />
    </>
  );
}

beforeEach(() => void runs.mockClear());

const user = userEvent.setup();
const runAll = () => user.click(screen.getByRole('button', { name: 'Run all' }));
const row = (name: RegExp) => screen.getByRole('row', { name });
const sign = (line: HTMLElement) => within(line).getByRole('img');
const status = () => screen.getByRole('status').textContent;
async function ready() {
  if (screen.getByRole('status').textContent.startsWith('Getting')) await tell({ ready: true });
}
async function tries(text: string) {
  const field = screen.getByRole('textbox');
  await user.clear(field);
  await user.type(field, text.replace(/[[{]/g, '$&$&'));
  await user.keyboard('{Enter}');
}

it('gives each case its verdict, puts the run down, and says when the program has changed since', async () => {
  render(<Table shown={shownOf()} />);
  await runAll();
  expect(status()).toBe('Getting Python ready …');
  await tell({ ready: true });
  expect(status()).toBe('Running two …');
  expect(JSON.parse(input())).toEqual([['i', '2']]);
  // 2 doubled is 4.
  await tell(whole(4));
  expect(status()).toBe('1 of 1 as expected');
  expect(sign(row(/two/))).toHaveAccessibleName('as expected');
  expect(runs).toHaveBeenLastCalledWith([{ key: 'seen', verdict: 'accepted' }]);
  await user.click(screen.getByRole('button', { name: 'change' }));
  expect(status()).toBe('Results of an earlier version');
  await runAll();
  await tell(reply({ reply: JSON.stringify({ fault: 'thrown', text: 'ValueError: no', at: [] }) }));
  expect(row(/two/)).toHaveTextContent('error');
  expect(status()).toBe('0 of 1 as expected');
});

it('keeps what own inputs came to when others are removed, and puts them down under one short name', async () => {
  render(<Table shown={shownOf()} />);
  for (const [text, result] of [
    ['21', 42],
    ['5', 10],
  ] as const) {
    await tries(text);
    await ready();
    await tell(whole(result));
  }
  expect(runs).toHaveBeenLastCalledWith([{ key: 'own-input', verdict: 'returned' }]);
  await user.click(screen.getByRole('button', { name: 'Remove your input 1' }));
  expect(screen.queryByText('42')).toBeNull();
  expect(row(/your input 1/)).toHaveTextContent('10');
  expect(sign(row(/your input 1/))).toHaveAccessibleName('ran');
});

it('an input that the function cannot take is told at the field, and nothing runs', async () => {
  render(<Table shown={shownOf()} />);
  const before = FakeWorker.all.flatMap(({ jobs }) => jobs).length;
  for (const [text, says] of [
    ['"a"', '“n” has to be a whole number'],
    ['1, 2', 'The function takes 1 argument'],
    ['{x', 'This cannot be read'],
  ] as const) {
    await tries(text);
    expect(screen.getByRole('alert')).toHaveTextContent(says);
  }
  expect(FakeWorker.all.flatMap(({ jobs }) => jobs)).toHaveLength(before);
});

it('stops a run: the engine is ended, no result comes from it, and the next run has another one', async () => {
  render(<Table shown={shownOf()} />);
  await runAll();
  await ready();
  const stopped = engine();
  await user.click(screen.getByRole('button', { name: 'Stop' }));
  expect(stopped.ended).toBe(true);
  expect(status()).toBe('');
  expect(runs).not.toHaveBeenCalled();
  await runAll();
  expect(status()).toBe('Getting Python ready …');
  // While it gets ready: it goes on doing so, but nothing is run.
  await user.click(screen.getByRole('button', { name: 'Stop' }));
  await tell({ ready: true });
  expect(engine().jobs).toHaveLength(0);
  expect(status()).toBe('');
  await runAll();
  await tell(whole(4));
  expect(status()).toBe('1 of 1 as expected');
});

it.each([
  [{ limit: 'time' } as const, 'over the time', 'The case took more than 3 s.'],
  [{ limit: 'memory' } as const, 'over the memory', 'The case took more than 64 MB of memory.'],
  [{ limit: 'output' } as const, 'over the output', 'The case wrote more than 64 kB.'],
])('tells the limit of the language that was met: %j', async (told, verdict, says) => {
  const limits = { milliseconds: 3000, megabytes: 64 };
  render(<Table shown={shownOf({ languages: [{ language: 'python', files: [], limits }] })} />);
  await runAll();
  await ready();
  await tell(reply(told));
  const line = row(/two/);
  expect(line).toHaveTextContent(verdict);
  await user.click(within(line).getByRole('button', { name: /Details/ }));
  expect(screen.getByText(says)).toBeInTheDocument();
});

it('gives no verdict where the examiner’s checker is not here', async () => {
  const comparison = { ...content.asked.comparison, byChecker: true };
  render(<Table shown={shownOf({ comparison })} />);
  await runAll();
  await ready();
  await tell(whole(4));
  expect(sign(row(/two/))).toHaveAccessibleName('ran');
  expect(status()).toBe('');
});

it('an engine that does not start is told, and asked for again at the next run', async () => {
  render(<Table shown={shownOf()} language="sql" />);
  await runAll();
  const broken = engine();
  await act(async () => {
    broken.onmessage!({ data: { failed: 'no' } as unknown as Told });
    await Promise.resolve();
  });
  expect(screen.getByRole('alert')).toHaveTextContent('SQL did not start');
  expect(broken.ended).toBe(true);
  await runAll();
  expect(engine()).not.toBe(broken);
  expect(screen.queryByRole('alert')).toBeNull();
});
