const MEMORY_SECTION = 5;
const HEADER_BYTES = 8;
const HAS_MAXIMUM = 1;

function readLeb(bytes: Uint8Array, at: number): { value: number; next: number } {
  let [value, factor, next] = [0, 1, at];
  for (;;) {
    const byte = bytes[next++]!;
    value += (byte & 127) * factor;
    factor *= 128;
    if (byte < 128) return { value, next };
  }
}

function writeLeb(value: number): number[] {
  const out: number[] = [];
  do {
    const low = value % 128;
    value = Math.floor(value / 128);
    out.push(value > 0 ? low | 128 : low);
  } while (value > 0);
  return out;
}

function clampSection(bytes: Uint8Array, from: number, mostPages: number): number[] {
  const { value: count, next } = readLeb(bytes, from);
  const out = writeLeb(count);
  let at = next;
  for (let i = 0; i < count; i++) {
    const flags = bytes[at++]!;
    const minimum = readLeb(bytes, at);
    at = minimum.next;
    let maximum = mostPages;
    if (flags & HAS_MAXIMUM) {
      const own = readLeb(bytes, at);
      maximum = Math.min(own.value, mostPages);
      at = own.next;
    }
    out.push(flags | HAS_MAXIMUM, ...writeLeb(minimum.value), ...writeLeb(maximum));
  }
  return out;
}

/**
 * A WebAssembly binary whose own memories cannot grow beyond `mostPages` of 64 KiB: the engine's limit, which no
 * script inside can lift. Throws where the binary has no memory of its own. Format: WebAssembly 1.0, section 5.5.
 */
export function clampWasmMemory(bytes: Uint8Array, mostPages: number): Uint8Array {
  const parts: Uint8Array[] = [bytes.subarray(0, HEADER_BYTES)];
  let clamped = false;
  for (let at = HEADER_BYTES; at < bytes.length;) {
    const { value: length, next: body } = readLeb(bytes, at + 1);
    if (bytes[at] === MEMORY_SECTION) {
      const section = clampSection(bytes, body, mostPages);
      parts.push(Uint8Array.from([MEMORY_SECTION, ...writeLeb(section.length), ...section]));
      clamped = true;
    } else parts.push(bytes.subarray(at, body + length));
    at = body + length;
  }
  if (!clamped) throw new Error('this binary has no memory of its own to clamp');
  return Buffer.concat(parts);
}
