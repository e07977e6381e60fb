const IV_BYTES = 12;

const bytesOf = (base64url: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(base64url.replace(/-/g, '+').replace(/_/g, '/')), (sign) => sign.charCodeAt(0));

/** Opens a sealed copy: AES-256-GCM under its key, packed with gzip (see `server/forms/seal.ts`). */
export async function unseal<T>(sealed: Uint8Array<ArrayBuffer>, key: string): Promise<T> {
  const opened = await crypto.subtle.importKey('raw', bytesOf(key), 'AES-GCM', false, ['decrypt']);
  const cipher = { name: 'AES-GCM', iv: sealed.slice(0, IV_BYTES) };
  const packed = await crypto.subtle.decrypt(cipher, opened, sealed.slice(IV_BYTES));
  const text = new Response(packed).body!.pipeThrough(new DecompressionStream('gzip'));
  return (await new Response(text).json()) as T;
}
