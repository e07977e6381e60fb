import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
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
  'server/scoring/structureWorker.ts',
];

/**
 * A module goes on knowing where its source stands: migrations, documents and fonts are found from there. Where that is
 * follows from the place of the bundle itself, so that a project that was moved or copied runs its own files.
 */
const sourcePlaces: Plugin = {
  name: 'source places',
  setup(bundle) {
    bundle.onLoad({ filter: /\.ts$/ }, ({ path: file }) => {
      const place = path.relative(ROOT, file).split(path.sep).join('/');
      const folder = path.posix.dirname(place);
      const contents = readFileSync(file, 'utf8')
        .replaceAll('import.meta.url', `(__projectUrl + ${JSON.stringify(place)})`)
        .replaceAll('import.meta.dirname', `__toPath(__projectUrl + ${JSON.stringify(folder)})`);
      return { contents, loader: 'ts' };
    });
  },
};

/** What stands before `dist` in the address of the bundle. */
const PROJECT_URL = `import { fileURLToPath as __toPath } from 'node:url';
const __projectUrl = import.meta.url.slice(0, import.meta.url.lastIndexOf('/dist/') + 1);`;

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
    banner: { js: PROJECT_URL },
    write: false,
  });
  // A process that starts meanwhile never reads half a file: what has not changed stays as it is.
  for (const { path: file, contents } of outputFiles) {
    if (existsSync(file) && readFileSync(file).equals(contents)) continue;
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, contents);
  }
}
