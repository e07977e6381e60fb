import { afterEach, expect, it, vi } from 'vitest';
import { hashOf } from './hashOf';

afterEach(() => vi.unstubAllGlobals());

// “abc”: FIPS 180-4, example of SHA-256.
it.each([true, false])('hashes with and without a secure context (%s)', async (secure) => {
  vi.stubGlobal('isSecureContext', secure);
  expect(await hashOf(new TextEncoder().encode('abc'))).toBe(
    'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad',
  );
});
