/** SHA-256 in hex. A phone's page may have no secure context: then a small library does it. */
export async function hashOf(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  const hash = globalThis.isSecureContext
    ? new Uint8Array(await crypto.subtle.digest('SHA-256', bytes))
    : (await import('@noble/hashes/sha2')).sha256(bytes);
  return [...hash].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}
