/*
 * The system calls of Linux that the fork lane needs, by a foreign function interface: no compiled code of our own.
 * Numbers and structures: linux/prctl.h, linux/seccomp.h, asm/unistd_64.h, sys/resource.h; x86-64 only.
 */
import { openSync, readFileSync, readdirSync, readlinkSync } from 'node:fs';
import koffi from 'koffi';

const libc = koffi.load('libc.so.6');
export const fork = libc.func('int fork()') as () => number;
export const exitNow = libc.func('void _exit(int)') as unknown as (status: number) => never;
const duplicate = libc.func('int dup2(int, int)') as (from: number, to: number) => number;
export const parentId = libc.func('int getppid()') as () => number;
const prctl = libc.func('prctl', 'int', ['int', 'ulong', 'ulong', 'ulong', 'ulong']) as (
  option: number,
  ...values: number[]
) => number;
const setrlimit = libc.func('int setrlimit(int, uint64_t*)') as (which: number, limits: bigint[]) => number;
const waitFor = libc.func('int wait4(int, _Out_ int*, int, _Out_ int64_t*)') as (
  pid: number,
  status: number[],
  options: number,
  usage: bigint[],
) => number;
const madvise = libc.func('int madvise(uint64_t, uint64_t, int)') as (
  from: bigint,
  length: bigint,
  advice: number,
) => number;
const Filter = koffi.struct('sock_fprog', { len: 'uint16_t', filter: 'uint8_t *' });
const prctlFilter = libc.func('prctl', 'int', ['int', 'ulong', koffi.pointer(Filter), 'ulong', 'ulong']) as (
  option: number,
  mode: number,
  filter: { len: number; filter: Buffer },
  ...zeros: number[]
) => number;

const setTimer = libc.func('int setitimer(int, int64_t*, int64_t*)') as unknown as (
  which: number,
  times: bigint[],
  before: null,
) => number;

const [SET_DEATH_SIGNAL, SET_DUMPABLE, SET_SECCOMP, SET_NO_NEW_PRIVILEGES] = [1, 4, 22, 38];
const [LIMIT_CPU, LIMIT_DATA] = [0, 2];
const SIGKILL = 9;
const WITHOUT_WAITING = 1;

/** Lets this process read its own `/proc` again after it has changed its user. */
export const makeReadable = (): void => void prctl(SET_DUMPABLE, 1, 0, 0, 0);

/** Ends this process when the thread that forked it ends. Told too late, it ends at once. */
export function dieWith(parent: number): void {
  prctl(SET_DEATH_SIGNAL, SIGKILL, 0, 0, 0);
  if (parentId() !== parent) exitNow(3);
}

/**
 * What a fork does to everything that this process has open, but for one descriptor: it leads nowhere. Closed, it would
 * end the fork when the runtime wakes its own event loop.
 */
export function descriptorsToCut(): (kept: number) => void {
  const nowhere = openSync('/dev/null', 'r+');
  const open = readdirSync('/proc/self/fd').map(Number);
  return (kept) => {
    for (const descriptor of open) if (descriptor !== kept) duplicate(nowhere, descriptor);
  };
}

const statusOf = (name: string): number =>
  Number(new RegExp(`${name}:\\s+(\\d+)`).exec(readFileSync('/proc/self/status', 'latin1'))![1]) * 1024;

/** Seconds of processor time, and bytes beyond what is in use now. */
export function limitSelf(cpuSeconds: number, bytes: number): void {
  const data = BigInt(statusOf('VmData') + bytes);
  setrlimit(LIMIT_CPU, [BigInt(cpuSeconds), BigInt(cpuSeconds)]);
  setrlimit(LIMIT_DATA, [data, data]);
}

const BY_PROCESSOR_TIME = 2;
/** What the timer of `endAfter` ends a process with. */
export const SIGPROF = 27;

/** Ends this process after so many milliseconds of its own processor time, whatever it does then; 0 takes that back. */
export function endAfter(milliseconds: number): void {
  const micros = BigInt(Math.ceil(milliseconds * 1000));
  setTimer(BY_PROCESSOR_TIME, [0n, 0n, micros / 1_000_000n, micros % 1_000_000n], null);
}

export interface Ended {
  readonly pid: number;
  /** As `wait` gives it: the signal in the low seven bits, the exit status above eight. */
  readonly status: number;
  readonly cpuMs: number;
}

/** The next child that has ended, with the processor time that it took as the kernel counted it. */
export function nextEnded(): Ended | null {
  const status = [0];
  const usage = new Array<bigint>(18).fill(0n);
  const pid = waitFor(-1, status, WITHOUT_WAITING, usage);
  if (pid <= 0) return null;
  const [userS, userUs, systemS, systemUs] = usage.map(Number) as [number, number, number, number];
  return { pid, status: status[0]!, cpuMs: (userS + systemS) * 1000 + (userUs + systemUs) / 1000 };
}

/* Classic BPF: load a word of the call's data, jump where it is equal, return. */
const [LOAD, JUMP_EQUAL, RETURN] = [0x20, 0x15, 0x06];
const [ALLOW, FAIL_WITH, KILL] = [0x7fff0000, 0x00050000, 0x80000000];
const [AT_NUMBER, AT_ARCHITECTURE, AT_THIRD_ARGUMENT] = [0, 4, 32];
const X86_64 = 0xc000003e;

function step(code: number, value: number, ifTrue = 0, ifFalse = 0): Buffer {
  const bytes = Buffer.alloc(8);
  bytes.writeUInt16LE(code, 0);
  bytes[2] = ifTrue;
  bytes[3] = ifFalse;
  bytes.writeUInt32LE(value >>> 0, 4);
  return bytes;
}
const HEAD = [
  step(LOAD, AT_ARCHITECTURE),
  step(JUMP_EQUAL, X86_64, 1, 0),
  step(RETURN, KILL),
  step(LOAD, AT_NUMBER),
];

function install(steps: Buffer[]): void {
  const filter = Buffer.concat(steps);
  if (prctl(SET_NO_NEW_PRIVILEGES, 1, 0, 0, 0) !== 0) throw new Error('no_new_privs was refused');
  if (prctlFilter(SET_SECCOMP, 2, { len: steps.length, filter }, 0, 0) !== 0)
    throw new Error('a list of system calls was refused');
}

const [MADVISE, DONT_FORK, DO_FORK, LARGE_PAGES, COLLAPSE] = [28, 10, 11, 14, 25];
const LARGE_PAGE = 2n ** 21n;

/** From now on nothing is left out of forks: V8 asks for that of all its memory, and a fork would end at once. */
export const keepMemoryInForks = (): void =>
  install([
    ...HEAD,
    step(JUMP_EQUAL, MADVISE, 0, 3),
    step(LOAD, AT_THIRD_ARGUMENT),
    step(JUMP_EQUAL, DONT_FORK, 0, 1),
    step(RETURN, FAIL_WITH),
    step(RETURN, ALLOW),
  ]);

/**
 * The same for what was left out before; guard regions too, where something else could be mapped otherwise. Memory of
 * some size is put into large pages where the kernel has them: a fork copies an entry for each page.
 */
export function takeMemoryIntoForks(): void {
  let [from, to, usual] = [0n, 0n, false];
  for (const line of readFileSync('/proc/self/smaps', 'latin1').split('\n')) {
    const range = /^([0-9a-f]+)-([0-9a-f]+) (....) \S+ \S+ 0 *$/.exec(line);
    const any = range ?? /^([0-9a-f]+)-([0-9a-f]+) /.exec(line);
    if (any)
      [from, to, usual] = [
        BigInt(`0x${any[1]}`),
        BigInt(`0x${any[2]}`),
        range?.[3]!.startsWith('rw') ?? false,
      ];
    if (!line.startsWith('VmFlags:')) continue;
    if (/\bdc\b/.test(line)) madvise(from, to - from, DO_FORK);
    const [first, last] = [(from + LARGE_PAGE - 1n) / LARGE_PAGE, to / LARGE_PAGE];
    if (!usual || last <= first) continue;
    for (const advice of [LARGE_PAGES, COLLAPSE])
      madvise(first * LARGE_PAGE, (last - first) * LARGE_PAGE, advice);
  }
}

/*
 * What a fork may still ask of the kernel: memory, clocks, locks, signals of its own, writing to what is open, ending.
 * read, write, close, mmap, mprotect, munmap, brk, rt_sigaction, rt_sigprocmask, rt_sigreturn, writev, sched_yield, mremap, madvise,
 * nanosleep, setitimer, getpid, gettimeofday, getrusage, gettid, futex, sched_getaffinity, clock_gettime, clock_nanosleep,
 * exit_group, exit, getrandom, pkey_mprotect, rseq
 */
const ALLOWED = [
  0, 1, 3, 9, 10, 11, 12, 13, 14, 15, 20, 24, 25, 28, 35, 38, 39, 96, 98, 186, 202, 204, 228, 230, 231, 60,
  318, 329, 334,
];

/** From now on any other system call ends this process. */
export const allowLittle = (): void =>
  install([
    ...HEAD,
    ...ALLOWED.flatMap((number) => [step(JUMP_EQUAL, number, 0, 1), step(RETURN, ALLOW)]),
    step(RETURN, KILL),
  ]);

const [FUTEX, EPOLL_WAIT, EPOLL_PWAIT] = ['202', '232', '281'];
/** FUTEX_WAIT_BITSET, private, by the real clock: a condition variable, not a lock. */
const CONDITION_WAIT = '0x189';

/**
 * Do all other threads wait in a condition or for events? A fork copies only the thread that asks for it: a lock that
 * another one holds at that moment would never be released in the copy.
 */
export function otherThreadsRest(): boolean {
  const own = readlinkSync('/proc/self');
  return readdirSync('/proc/self/task')
    .filter((thread) => thread !== own)
    .every((thread) => {
      const [call, , operation] = readFileSync(`/proc/self/task/${thread}/syscall`, 'latin1').split(' ');
      return call === FUTEX ? operation === CONDITION_WAIT : call === EPOLL_WAIT || call === EPOLL_PWAIT;
    });
}

/** Processor time so far, memory in use, and whether it sleeps; null where the process has gone. */
export function lookAt(pid: number): { cpuMs: number; bytes: number; asleep: boolean } | null {
  try {
    const read = (name: string) => readFileSync(`/proc/${pid}/${name}`, 'latin1');
    const cpuMs = Number(read('schedstat').split(' ')[0]) / 1e6;
    const bytes = Number(read('statm').split(' ')[1]) * 4096;
    return { cpuMs, bytes, asleep: read('stat').split(') ')[1]!.startsWith('S') };
  } catch {
    return null;
  }
}
