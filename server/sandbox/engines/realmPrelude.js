/*
 * The first script of the bare realm: the few globals that Pyodide asks for, made of the realm's own intrinsics, so
 * that no object of Node is reachable from inside.
 */
(() => {
  'use strict';
  const realm = globalThis;
  const nothing = () => {};
  realm.console = { log: nothing, warn: nothing, error: nothing, info: nothing, debug: nothing };

  const pushUtf8 = (out, point) => {
    const code = point >= 0xd800 && point <= 0xdfff ? 0xfffd : point;
    if (code < 0x80) out.push(code);
    else if (code < 0x800) out.push(0xc0 | (code >> 6), 0x80 | (code & 63));
    else if (code < 0x10000) out.push(0xe0 | (code >> 12), 0x80 | ((code >> 6) & 63), 0x80 | (code & 63));
    else
      out.push(
        0xf0 | (code >> 18),
        0x80 | ((code >> 12) & 63),
        0x80 | ((code >> 6) & 63),
        0x80 | (code & 63),
      );
  };
  realm.TextEncoder = class {
    get encoding() {
      return 'utf-8';
    }
    encode(text = '') {
      const out = [];
      for (const sign of String(text)) pushUtf8(out, sign.codePointAt(0));
      return new Uint8Array(out);
    }
    encodeInto(text, target) {
      const bytes = this.encode(text).subarray(0, target.length);
      target.set(bytes);
      return { read: text.length, written: bytes.length };
    }
  };

  const bytesOf = (view) =>
    view instanceof Uint8Array
      ? view
      : view instanceof ArrayBuffer
        ? new Uint8Array(view)
        : new Uint8Array(view.buffer, view.byteOffset, view.byteLength);
  const decodeUtf16 = (bytes) => {
    let text = '';
    for (let i = 0; i + 1 < bytes.length; i += 2) text += String.fromCharCode(bytes[i] | (bytes[i + 1] << 8));
    return text;
  };
  const decodeUtf8 = (bytes) => {
    let text = '';
    let points = [];
    for (let i = 0; i < bytes.length;) {
      const first = bytes[i++];
      let point = 0xfffd;
      if (first < 0x80) point = first;
      else if (first >= 0xc2 && first < 0xe0) point = ((first & 31) << 6) | (bytes[i++] & 63);
      else if (first >= 0xe0 && first < 0xf0)
        point = ((first & 15) << 12) | ((bytes[i++] & 63) << 6) | (bytes[i++] & 63);
      else if (first >= 0xf0 && first < 0xf5)
        point =
          ((first & 7) << 18) | ((bytes[i++] & 63) << 12) | ((bytes[i++] & 63) << 6) | (bytes[i++] & 63);
      points.push(point > 0x10ffff ? 0xfffd : point);
      if (points.length > 4096) {
        text += String.fromCodePoint(...points);
        points = [];
      }
    }
    return text + String.fromCodePoint(...points);
  };
  realm.TextDecoder = class {
    constructor(encoding = 'utf-8') {
      this.encoding = encoding;
    }
    decode(view) {
      if (!view) return '';
      return /16/.test(this.encoding) ? decodeUtf16(bytesOf(view)) : decodeUtf8(bytesOf(view));
    }
  };

  realm.performance = { now: () => Date.now() };

  // Chance comes from the seed of the case, never from the host: of two forks of one process no two draw the same.
  // Generator: mulberry32 (public domain).
  let state = 1;
  const random = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  realm.__seed = (seed) => {
    state = seed | 0;
  };
  Math.random = random;
  realm.crypto = {
    getRandomValues(target) {
      const bytes = bytesOf(target);
      for (let i = 0; i < bytes.length; i++) bytes[i] = (random() * 256) | 0;
      return target;
    },
  };
  realm.setTimeout = () => 0;
  realm.clearTimeout = nothing;
  realm.setInterval = () => 0;
  realm.clearInterval = nothing;
  realm.setImmediate = () => 0;
  realm.queueMicrotask = (job) => Promise.resolve().then(job);
  realm.AbortController = class {
    constructor() {
      this.signal = { aborted: false, addEventListener: nothing };
    }
    abort() {
      this.signal.aborted = true;
    }
  };
  realm.URL = class {
    constructor(address) {
      this.href = String(address);
    }
    toString() {
      return this.href;
    }
  };
  const refuse = () => {
    throw new Error('nothing can be read here');
  };
  realm.load = refuse;
  realm.read = refuse;

  // Pyodide's shell build asks `os.system('head -cN /dev/urandom | base64')` for its seed: answered with N such bytes.
  realm.os = {
    system(_command, [, line]) {
      const count = Number(/head -c(\d+)/.exec(line)[1]);
      const signs = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
      let out = '';
      for (let i = 0; i < count; i += 3)
        for (let k = 0; k < 4; k++) out += k > count - i ? '=' : signs[(random() * 64) | 0];
      return out;
    },
  };

  // No memory made in here grows beyond 256 MiB; the main one is clamped in the binary itself.
  const MOST_PAGES = 4096;
  const Memory = WebAssembly.Memory;
  WebAssembly.Memory = function (wanted) {
    return new Memory({ ...wanted, maximum: Math.min(wanted.maximum ?? 65536, MOST_PAGES) });
  };
  WebAssembly.Memory.prototype = Memory.prototype;

  // Everything reachable from the intrinsics is frozen before a program starts; errors carry no stack and no hook.
  const INTRINSICS = [
    ...['Object', 'Function', 'Array', 'String', 'Number', 'Boolean', 'Symbol', 'BigInt', 'Promise', 'Proxy'],
    ...['Error', 'TypeError', 'RangeError', 'SyntaxError', 'ReferenceError', 'EvalError', 'URIError'],
    ...[
      'AggregateError',
      'Map',
      'Set',
      'WeakMap',
      'WeakSet',
      'WeakRef',
      'FinalizationRegistry',
      'JSON',
      'Math',
    ],
    ...[
      'Reflect',
      'Date',
      'RegExp',
      'ArrayBuffer',
      'SharedArrayBuffer',
      'DataView',
      'Atomics',
      'WebAssembly',
    ],
    ...['Uint8Array', 'Int8Array', 'Uint16Array', 'Int16Array', 'Uint32Array', 'Int32Array', 'Float32Array'],
    ...['Float64Array', 'Uint8ClampedArray', 'BigInt64Array', 'BigUint64Array', 'Iterator', 'TextEncoder'],
    ...['TextDecoder', 'URL', 'AbortController', 'console', 'performance', 'crypto', 'os'],
  ];
  realm.__freeze = () => {
    delete realm.__freeze;
    const seen = new Set();
    const visit = (value) => {
      if ((typeof value !== 'object' && typeof value !== 'function') || value === null || seen.has(value))
        return;
      seen.add(value);
      for (const name of Reflect.ownKeys(value)) {
        const own = Reflect.getOwnPropertyDescriptor(value, name);
        for (const part of [own.value, own.get, own.set]) visit(part);
      }
      visit(Reflect.getPrototypeOf(value));
    };
    const fixed = { value: undefined, writable: false, configurable: false };
    Object.defineProperty(Error, 'prepareStackTrace', fixed);
    Error.stackTraceLimit = 0;
    for (const name of INTRINSICS) visit(realm[name]);
    visit(function* () {}.constructor);
    visit(async function () {}.constructor);
    visit(async function* () {}.constructor);
    visit([][Symbol.iterator]());
    for (const one of seen) Object.freeze(one);
  };
})();
