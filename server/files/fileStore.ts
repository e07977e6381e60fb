import {
  existsSync,
  mkdirSync,
  openSync,
  closeSync,
  fsyncSync,
  readFileSync,
  renameSync,
  rmSync,
  writeSync,
} from 'node:fs';
import path from 'node:path';
import { newSecret, sha256 } from '../secrets';

/** Files by the SHA-256 of their content: the same bytes are kept once, and a name cannot be made up. */
export class FileStore {
  private readonly folder: string;
  constructor(folder: string) {
    this.folder = folder;
    mkdirSync(folder, { recursive: true });
  }

  /** Keeps the bytes durably and returns their hash. */
  keep(bytes: Uint8Array): string {
    const hash = sha256(bytes);
    const target = this.pathOf(hash);
    if (existsSync(target)) return hash;
    mkdirSync(path.dirname(target), { recursive: true });
    const draft = `${target}.${newSecret()}`;
    const file = openSync(draft, 'w');
    writeSync(file, bytes);
    fsyncSync(file);
    closeSync(file);
    renameSync(draft, target);
    return hash;
  }

  /** Deletes the bytes; a file that is gone already is no matter. */
  remove(hash: string): void {
    if (/^[0-9a-f]{64}$/.test(hash)) rmSync(this.pathOf(hash), { force: true });
  }

  read(hash: string): Buffer | null {
    if (!/^[0-9a-f]{64}$/.test(hash)) return null;
    const file = this.pathOf(hash);
    return existsSync(file) ? readFileSync(file) : null;
  }

  private pathOf(hash: string): string {
    return path.join(this.folder, hash.slice(0, 2), hash);
  }
}
