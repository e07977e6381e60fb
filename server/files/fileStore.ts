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
import { createHash } from 'node:crypto';
import { mkdir, open, rename } from 'node:fs/promises';
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

  /** Keeps bytes as they come, without ever having them all in memory. */
  async keepStream(
    source: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
  ): Promise<{ hash: string; bytes: number }> {
    const draft = path.join(this.folder, `.${newSecret()}`);
    const file = await open(draft, 'w');
    const hash = createHash('sha256');
    let bytes = 0;
    try {
      for await (const chunk of source) {
        hash.update(chunk);
        bytes += chunk.length;
        await file.write(chunk);
      }
      await file.sync();
    } catch (error) {
      rmSync(draft, { force: true });
      throw error;
    } finally {
      await file.close();
    }
    const name = hash.digest('hex');
    const target = this.pathOf(name);
    await mkdir(path.dirname(target), { recursive: true });
    await rename(draft, target);
    return { hash: name, bytes };
  }

  /** Where the bytes lie, to be streamed; null where there are none. */
  find(hash: string): string | null {
    if (!/^[0-9a-f]{64}$/.test(hash)) return null;
    const file = this.pathOf(hash);
    return existsSync(file) ? file : null;
  }

  /** Deletes the bytes; a file that is gone already is no matter. */
  remove(hash: string): void {
    if (/^[0-9a-f]{64}$/.test(hash)) rmSync(this.pathOf(hash), { force: true });
  }

  read(hash: string): Buffer | null {
    const file = this.find(hash);
    return file === null ? null : readFileSync(file);
  }

  private pathOf(hash: string): string {
    return path.join(this.folder, hash.slice(0, 2), hash);
  }
}
