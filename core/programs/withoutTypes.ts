import { transform } from 'sucrase';
import { faultReply, type CaseJob, type ProgramFile } from './engine';

const hasModules = (text: string): boolean =>
  text.split('\n').some((line) => /^(?:import|export)\b/.test(line.trimStart()));

type Plain = { readonly files: readonly ProgramFile[] } | { readonly trouble: string };

/** Where the reader of types stopped: its own words, without its name and without the place that is told beside them. */
function troubleOf(name: string, error: unknown): string {
  const message = String((error as Error | undefined)?.message ?? error);
  const [, words = message, line] = /^(?:Error transforming [\w.]+: )?(.*?)(?: \((\d+):\d+\))?$/s.exec(
    message,
  )!;
  const at = line === undefined ? [] : [{ file: name, line: Number(line), in: '' }];
  return faultReply('thrown', `SyntaxError: ${words}`, at);
}

/**
 * Script files as the engine runs them: without types, which are not checked, and with modules found by name. Lines keep
 * their numbers.
 */
export function withoutTypes({ language, files }: Pick<CaseJob, 'language' | 'files'>): Plain {
  const plain: ProgramFile[] = [];
  for (const { name, text } of files) {
    const modules = hasModules(text);
    if (language !== 'typescript' && !modules) {
      plain.push({ name, text });
      continue;
    }
    try {
      const transforms = [
        ...(language === 'typescript' ? (['typescript'] as const) : []),
        ...(modules ? (['imports'] as const) : []),
      ];
      const { code } = transform(text, {
        transforms,
        disableESTransforms: true,
        preserveDynamicImport: true,
      });
      plain.push({ name, text: code });
    } catch (error) {
      return { trouble: troubleOf(name, error) };
    }
  }
  return { files: plain };
}
