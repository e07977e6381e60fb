/**
 * The name under which a sealed file is listed. With the key a device finds the file that a text names; without the key
 * the name reveals nothing, not even whether a known file is listed.
 */
export const mediaName = (key: string, file: string, sha256: (text: string) => string): string =>
  sha256(`${key}:${file}`);
