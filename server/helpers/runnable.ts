import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/** How a script of ours is started in a process of its own. */
export interface Runnable {
  readonly file: string;
  readonly execArgv: readonly string[];
}

/**
 * The bundled twin of a script where the server itself runs bundled or is told to (`CLEAR_SITTING_BUNDLED`), else its
 * source, through tsx.
 */
export function runnable(script: URL): Runnable {
  const source = fileURLToPath(script);
  const at = source.lastIndexOf('/server/');
  const twin = `${source.slice(0, at)}/dist${source.slice(at).replace(/\.ts$/, '.mjs')}`;
  if (process.env.CLEAR_SITTING_BUNDLED === 'true' && existsSync(twin)) return { file: twin, execArgv: [] };
  return { file: source, execArgv: ['--import', 'tsx'] };
}
