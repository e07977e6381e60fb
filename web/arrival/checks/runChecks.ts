import {
  judgeConnection,
  summariseTrips,
  type CheckName,
  type CheckResult,
} from '../../../core/arrival/checks';
import { post } from '../../api/client';
import { t } from '../words';

/** A check's result with its words: what was found, and what to do where it is not good. */
export interface Finding extends CheckResult {
  readonly words: string;
  readonly remedy: string | null;
}

const FEATURES: Record<string, () => boolean> = {
  webassembly: () => typeof WebAssembly === 'object',
  worker: () => typeof Worker === 'function',
  indexeddb: () => typeof indexedDB === 'object',
  'secure page': () => window.isSecureContext && Boolean(crypto.subtle),
  'module scripts': () => 'noModule' in HTMLScriptElement.prototype,
};

function browser(): Finding {
  const missing = Object.entries(FEATURES)
    .filter(([, there]) => !there())
    .map(([name]) => name);
  const facts = Object.fromEntries(Object.keys(FEATURES).map((name) => [name, !missing.includes(name)]));
  if (missing.length === 0)
    return { name: 'browser', outcome: 'good', facts, words: t('browserGood'), remedy: null };
  return {
    name: 'browser',
    outcome: 'not working',
    facts,
    words: t('browserBad', { missing: missing.join(', ') }),
    remedy: t('browserRemedy'),
  };
}

const LEAST_WIDTH = 340;

function screen(): Finding {
  const { innerWidth: width, innerHeight: height } = window;
  const second = (window.screen as Screen & { isExtended?: boolean }).isExtended === true;
  const facts = { width, height, 'second display': second };
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
    const facts = { 'free bytes': free };
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

const TRIPS = 9;

async function trip(): Promise<number | null> {
  const from = performance.now();
  try {
    await post('/echo', { at: from });
    return performance.now() - from;
  } catch {
    return null;
  }
}

async function connection(): Promise<Finding> {
  const trips: (number | null)[] = [];
  for (let i = 0; i < TRIPS; i++) trips.push(await trip());
  if (trips.every((ms) => ms === null))
    return {
      name: 'connection',
      outcome: 'not working',
      facts: { lost: TRIPS },
      words: t('connectionBad'),
      remedy: t('connectionRemedy'),
    };
  const { medianMs, spreadMs, lost } = summariseTrips(trips);
  const outcome = judgeConnection({ medianMs, spreadMs, lost });
  const [median, spread] = [Math.max(1, Math.round(medianMs)), Math.round(spreadMs)];
  const facts = { 'median ms': median, 'spread ms': spread, lost };
  const words =
    lost > 0 ? t('connectionLost', { median, lost, all: TRIPS }) : t('connectionGood', { median, spread });
  return {
    name: 'connection',
    outcome,
    facts,
    words,
    remedy: outcome === 'good' ? null : t('connectionRemedy'),
  };
}

/** Checks that run by themselves; the camera's needs the candidate. */
export const automaticChecks: Partial<Record<CheckName, () => Finding | Promise<Finding>>> = {
  browser,
  screen,
  storage,
  connection,
};
