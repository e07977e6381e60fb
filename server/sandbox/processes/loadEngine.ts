import type { Engine, EngineName } from '../engines/engine';
import { engineFiles } from '../engines/engineFiles';
import { loadJavascript } from '../engines/javascriptEngine';
import { loadPython } from '../engines/pythonEngine';
import { loadSql } from '../engines/sqlEngine';

/** How deep QuickJS may call: some 20,000 frames where the thread has 64 MiB of stack, 1,500 on an ordinary one. */
export const DEEP_STACK = 4096 * 1024;
export const ORDINARY_STACK = 256 * 1024;

/** The engine of a process, from the files of the box; throws where one of them is damaged. */
export function loadEngine(name: EngineName, folder: string, stackBytes: number): Engine {
  const read = engineFiles(folder);
  if (name === 'python') return loadPython(read);
  return name === 'sql' ? loadSql(read) : loadJavascript(read, stackBytes);
}
