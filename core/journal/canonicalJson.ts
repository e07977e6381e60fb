/**
 * JSON with keys in code-unit order and no spaces, so that equal values give equal bytes (after RFC 8785). Members that
 * are undefined are left out. Throws a RangeError for values that are nested too deeply.
 */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (value !== null && typeof value === 'object') {
    const entries = Object.entries(value).filter(([, inner]) => inner !== undefined);
    entries.sort(([a], [b]) => (a < b ? -1 : 1));
    return `{${entries.map(([key, inner]) => `${JSON.stringify(key)}:${canonicalJson(inner)}`).join(',')}}`;
  }
  return JSON.stringify(value) ?? 'null';
}
