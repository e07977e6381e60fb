import {
  judgeConnection,
  summariseTrips,
  type CheckName,
  type CheckResult,
} from '../../../core/arrival/checks';
import type { KindName } from '../../../core/kinds/kindNames';
import { get, post, postBytes } from '../../api/client';
import { featuresFor, type Feature } from '../../kinds/answers';
import { t } from '../words';

/** A check's result with its words: what was found, and what to do where it is not good. */
export interface Finding extends CheckResult {
  readonly words: string;
  readonly remedy: string | null;
}

/** What every paper needs. */
const ALWAYS = ['storage', 'secureContext', 'moduleScripts', 'unpacking'] as const;

const FEATURES: Record<Feature | (typeof ALWAYS)[number], () => boolean> = {
  WebAssembly: () => typeof WebAssembly === 'object',
  ownElements: () => typeof customElements === 'object' && typeof ResizeObserver === 'function',
  pictures: () => typeof createImageBitmap === 'function' && typeof HTMLCanvasElement === 'function',
  workers: () => typeof Worker === 'function',
  storage: () => typeof indexedDB === 'object',
  secureContext: () => window.isSecureContext && Boolean(crypto.subtle),
  unpacking: () => typeof DecompressionStream === 'function',
  moduleScripts: () => 'noModule' in HTMLScriptElement.prototype,
};

function browser(kinds: readonly KindName[]): Finding {
  const needed = [...ALWAYS, ...featuresFor(kinds)];
  const missing = needed.filter((name) => !FEATURES[name]());
  const facts = Object.fromEntries(needed.map((name) => [name, !missing.includes(name)]));
  if (missing.length === 0)
    return { name: 'browser', outcome: 'good', facts, words: t('browserGood'), remedy: null };
  return {
    name: 'browser',
    outcome: 'not working',
    facts,
    words: t('browserBad', { missing: missing.map((name) => t(`has ${name}`)).join(', ') }),
    remedy: t('browserRemedy'),
  };
}

const LEAST_WIDTH = 340;

function screen(): Finding {
  const { innerWidth: width, innerHeight: height } = window;
  const second = (window.screen as Screen & { isExtended?: boolean }).isExtended === true;
  const facts = { width, height, secondDisplay: second };
  const words = t(second ? 'screenTwo' : 'screenOne', { width, height });
  const small = width < LEAST_WIDTH;
  const remedy = small ? t('screenSmall') : second ? t('screenSecond') : null;
  return { name: 'screen', outcome: remedy ? 'could be better' : 'good', facts, words, remedy };
}

const LEAST_BYTES = 20 * 1024 * 1024;

function tryDatabase(): Promise<void> {
  return new Promise((resolve, reject) => {
    const open = indexedDB.open('clear-sitting-check', 1);
    open.onupgradeneeded = () => open.result.createObjectStore('try');
    open.onerror = () => reject(open.error ?? new Error('no storage'));
    open.onsuccess = () => {
      const write = open.result.transaction('try', 'readwrite');
      write.objectStore('try').put(Date.now(), 'at');
      write.oncomplete = () => {
        open.result.close();
        indexedDB.deleteDatabase('clear-sitting-check');
        resolve();
      };
      write.onerror = () => reject(write.error ?? new Error('no storage'));
    };
  });
}

async function storage(): Promise<Finding> {
  try {
    await tryDatabase();
    const { quota = 0, usage = 0 } = (await navigator.storage?.estimate?.()) ?? {};
    const free = quota - usage;
    const facts = { freeBytes: free };
    const megabytes = Math.floor(free / 1024 / 1024);
    if (free > 0 && free < LEAST_BYTES)
      return {
        name: 'storage',
        outcome: 'could be better',
        facts,
        words: t('storageLittle', { megabytes }),
        remedy: t('storageRemedy'),
      };
    return { name: 'storage', outcome: 'good', facts, words: t('storageGood'), remedy: null };
  } catch {
    return {
      name: 'storage',
      outcome: 'not working',
      facts: {},
      words: t('storageBad'),
      remedy: t('storageRemedy'),
    };
  }
}

const TRIPS = 20;
/** Spread over ten seconds: a line that holds only for a moment is not steady. */
const BETWEEN_MS = 500;
const BLOCK_BYTES = 200 * 1024;

async function trip(): Promise<number | null> {
  const from = performance.now();
  try {
    await post('/echo', { at: from });
    return performance.now() - from;
  } catch {
    return null;
  }
}

/** Mbit/s of upload, from one block; 0 where it did not arrive. */
async function upload(): Promise<number> {
  const from = performance.now();
  try {
    const { bytes } = await postBytes<{ bytes: number }>(
      '/arrival/upload-check',
      new Uint8Array(BLOCK_BYTES),
    );
    return bytes === BLOCK_BYTES ? (BLOCK_BYTES * 8) / ((performance.now() - from) * 1000) : 0;
  } catch {
    return 0;
  }
}

/** By cable or by radio, where the browser tells (Network Information API). */
function wiring(): 'cable' | 'radio' | 'unknown' {
  const { connection } = navigator as { connection?: { type?: string } };
  if (connection?.type === 'ethernet') return 'cable';
  return connection?.type === 'wifi' || connection?.type === 'cellular' ? 'radio' : 'unknown';
}

async function connection(): Promise<Finding> {
  const trips: (number | null)[] = [];
  for (let i = 0; i < TRIPS; i++) {
    trips.push(await trip());
    await new Promise((next) => setTimeout(next, BETWEEN_MS));
  }
  if (trips.every((ms) => ms === null))
    return {
      name: 'connection',
      outcome: 'not working',
      facts: { lost: TRIPS },
      words: t('connectionBad'),
      remedy: t('connectionRemedy'),
    };
  const { medianMs, spreadMs, lost } = summariseTrips(trips);
  const mbits = await upload();
  const outcome = judgeConnection({ medianMs, spreadMs, lost: mbits > 0 ? lost : TRIPS });
  const [median, spread] = [Math.max(1, Math.round(medianMs)), Math.round(spreadMs)];
  const kind = wiring();
  const facts = {
    medianMs: median,
    spreadMs: spread,
    lost,
    uploadMbits: Number(mbits.toFixed(1)),
    kind,
  };
  const words =
    lost > 0
      ? t('connectionLost', { median, lost, all: TRIPS })
      : `${t(outcome === 'good' ? 'connectionGood' : 'connectionWeak', { median })}${kind === 'radio' ? t('connectionRadio') : ''}`;
  return {
    name: 'connection',
    outcome,
    facts,
    words,
    remedy: outcome === 'good' ? null : t('connectionRemedy'),
  };
}

const CLOCK_OFF_S = 60;

/** How far the device's clock is from ours. It changes nothing, but people wonder. */
async function clock(): Promise<Finding> {
  const from = Date.now();
  const { now } = await get<{ now: number }>('/config');
  const seconds = Math.round(Math.abs((from + Date.now()) / 2 - now) / 1000);
  const words =
    seconds < CLOCK_OFF_S
      ? t('clockGood', { seconds: Math.max(1, seconds) })
      : t('clockOff', { minutes: Math.round(seconds / 60) });
  return { name: 'clock', outcome: 'good', facts: { secondsOff: seconds }, words, remedy: null };
}

function fullScreen(): Finding {
  const works = document.fullscreenEnabled;
  return {
    name: 'full screen',
    outcome: works ? 'good' : 'could be better',
    facts: { works },
    words: t(works ? 'fullGood' : 'fullBad'),
    remedy: works ? null : t('fullRemedy'),
  };
}

type Check = (kinds: readonly KindName[]) => Finding | Promise<Finding>;

/** Checks that run by themselves; those of camera and sound need the candidate. */
export const automaticChecks: Partial<Record<CheckName, Check>> = {
  browser,
  screen,
  storage,
  clock,
  connection,
  'full screen': fullScreen,
};
