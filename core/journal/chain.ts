/** SHA-256 of a text (as UTF-8), in lower-case hex. Handed in, so that server and browser use their own. */
export type Digest = (text: string) => string;

/**
 * What a device says with every request: how far it has written in a hold, the chain hash over all entries up to there,
 * and the latest server time that it has received. `token` names the granting, so that a server that was restored from
 * a backup is not taken for the one that granted it.
 */
export interface Head {
  readonly hold: number;
  readonly token: string;
  /** The number of the last entry written; 0 before the first. */
  readonly number: number;
  readonly chain: string;
  /** The latest server time received, in ms since 1970. */
  readonly heard: number;
}

/** The chain of a hold before its first entry. */
export const chainStart = (token: string, digest: Digest): string => digest(`hold ${token}`);

/** The chain after one more entry, given as the digest of its canonical text. */
export const chainAfter = (before: string, entryDigest: string, digest: Digest): string =>
  digest(before + entryDigest);
