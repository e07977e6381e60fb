/** JSON with keys in code-unit order and no spaces, so that equal answers give equal bytes (after RFC 8785). */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (value !== null && typeof value === 'object') {
    const entries = Object.entries(value).filter(([, inner]) => inner !== undefined);
    entries.sort(([a], [b]) => (a < b ? -1 : 1));
    return `{${entries.map(([key, inner]) => `${JSON.stringify(key)}:${canonicalJson(inner)}`).join(',')}}`;
  }
  return JSON.stringify(value);
}

const ALPHABET = 'ABCDEFGHJKMNPQRSTVWXYZ0123456789'; // 32 signs; without I, L, O, U, which are misread

/** The first 60 bits of a SHA-256 (hex) as twelve signs in groups: what a person reads out on the telephone. */
export function receiptCode(sha256Hex: string): string {
  let bits = BigInt(`0x${sha256Hex.slice(0, 15)}`);
  let code = '';
  for (let i = 0; i < 12; i++) {
    code = ALPHABET[Number(bits & 31n)]! + code;
    bits >>= 5n;
  }
  return code.replace(/(.{4})(?=.)/g, '$1-');
}
