/**
 * The name under which a sealed file is listed: whoever has its key can tell it from the file that a text names; to
 * anybody else it says nothing, not even that a file they know is among them.
 */
export const mediaName = (key: string, file: string, sha256: (text: string) => string): string =>
  sha256(`${key}:${file}`);
