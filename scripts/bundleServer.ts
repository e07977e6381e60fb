import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, type Plugin } from 'esbuild';

const ROOT = path.resolve(import.meta.dirname, '..');

/** What is run by itself: each becomes one file. */
const ENTRIES = [
  'server/main.ts',
  'server/readingHelper.ts',
  'server/printing/printHelper.ts',
  'server/printing/drawPdfHelper.ts',
  'server/pictures/pictureHelper.ts',
  'server/papers/importHelper.ts',
  'server/rehearsal/rehearsalHelper.ts',
  'server/checkpoints/checkpointWorker.ts',
  'server/scoring/scoringWorker.ts',
  'server/scoring/expressionWorker.ts',
];

/** A module goes on knowing where its source stands: migrations, documents and fonts are found from there. */
const sourcePlaces: Plugin = {
  name: 'source places',
  setup(bundle) {
    bundle.onLoad({ filter: /\.ts$/ }, ({ path: file }) => {
      const contents = readFileSync(file, 'utf8')
        .replaceAll('import.meta.url', JSON.stringify(pathToFileURL(file).href))
        .replaceAll('import.meta.dirname', JSON.stringify(path.dirname(file)));
      return { contents, loader: 'ts' };
    });
  },
};

/**
 * Bundles the server and the scripts of its helpers and workers into `dist/server`: they start three times as fast there
 * as through tsx, which reads some three hundred modules at every start. Data files stay where they are in the sources.
 * `more` names further scripts; they come into `dist` by their own paths.
 */
export async function bundleServer(more: readonly string[] = []): Promise<void> {
  const { outputFiles } = await build({
    entryPoints: [...ENTRIES, ...more].map((entry) => path.join(ROOT, entry)),
    outdir: path.join(ROOT, 'dist'),
    outbase: ROOT,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    // Within the bundle helpers and workers are bundled as well (`server/helpers/runnable.ts`).
    define: { 'process.env.CLEAR_SITTING_BUNDLED': '"true"' },
    logLevel: 'warning',
    plugins: [sourcePlaces],
    write: false,
  });
  // A process that starts meanwhile never reads half a file: what has not changed stays as it is.
  for (const { path: file, contents } of outputFiles) {
    if (existsSync(file) && readFileSync(file).equals(contents)) continue;
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, contents);
  }
}
