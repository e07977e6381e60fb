const IV_BYTES = 12;

const bytesOf = (base64url: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(base64url.replace(/-/g, '+').replace(/_/g, '/')), (sign) => sign.charCodeAt(0));

/** Opens sealed bytes: AES-256-GCM under their key, behind 12 bytes of initialisation vector. */
export async function unsealBytes(
  sealed: Uint8Array<ArrayBuffer>,
  key: string,
): Promise<Uint8Array<ArrayBuffer>> {
  const opened = await crypto.subtle.importKey('raw', bytesOf(key), 'AES-GCM', false, ['decrypt']);
  const cipher = { name: 'AES-GCM', iv: sealed.subarray(0, IV_BYTES) };
  return new Uint8Array(await crypto.subtle.decrypt(cipher, opened, sealed.subarray(IV_BYTES)));
}

/** Opens a sealed copy, which was packed with gzip (see `server/forms/seal.ts`). */
export async function unseal<T>(sealed: Uint8Array<ArrayBuffer>, key: string): Promise<T> {
  const packed = await unsealBytes(sealed, key);
  const text = new Response(packed).body!.pipeThrough(new DecompressionStream('gzip'));
  return (await new Response(text).json()) as T;
}
