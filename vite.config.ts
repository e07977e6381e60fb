import react from '@vitejs/plugin-react';
import tailwindcss from '@tailwindcss/vite';
import { build as bundle } from 'esbuild';
import { writeFileSync } from 'node:fs';
import { readdir, readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
import { defineConfig, type Plugin } from 'vite';

const OUT = path.resolve(import.meta.dirname, 'dist/web');
/** Languages no paper of ours is in. */
const NOT_FOR_THE_DESK = /(cyrillic|greek|vietnamese|latin-ext)/;
/** Where a candidate is from the link to the hand-in: what they reach is kept on the device, and nothing of staff's. */
const CANDIDATE_PAGES = ['ArrivalPage', 'DeskPage', 'DeskFrame', 'RehearsalPage', 'PhonePage'];

/** Kept only where a paper has texts of this sort. */
const FOR_SOME: Readonly<Record<string, RegExp>> = {
  // Browsers that can run the desk read one form of the fonts.
  formula: /\/(Formula-|KaTeX_[A-Za-z0-9]+-[^.]+\.woff2)/,
  chart: /\/Chart-/,
  pdf: /\/(PdfView|pdf_viewer|pdfWorker|pdf)[-.]/,
  picture: /\/LargePicture-/,
};
/** Pages that come with all they need in one go. */
const AT_ONCE = /\/(ArrivalPage|DeskPage|DeskFrame|RehearsalPage)-/;
/**
 * What every page of a candidate needs, in one file: it would be sixty small ones, each packed by itself, which together
 * are longer. The first view of the desk is counted by the byte.
 */
const SHARED =
  /\/web\/(ui\/(Button|PageHeading|Notice|ToolPanel|toolTrigger|useNarrow|showSecond|useAsync|ComponentShelf|reading|ReadingControls|CandidateFrame)|api|live\/(liveLine|RaiseHand)|media\/(fileSource|inView|fills)|kit\/(KitContext|useAid|tools|singleKeys|words)|desk\/(DeskFrame|DeskContext|Kit|Foot|Rail|Pages|QuestionView|PartView|Introductions|words|Strip|StateBar|Clock|Told|coverOf|HelpTools|Handouts|useDeskKeys|railHeights|Versions|phraseDesk)|documents\/(DocumentView|Inlines|LazyNode|Phrase|phrases|lazyNodes|words)|kinds\/(answers|candidates|answerProps))\.tsx?$|\/core\/(marks|messages\/message|timing|sittings\/progress|kinds\/(stored|candidateKindOf|contract)|journal\/turns|papers\/candidatePaper|files\/pages)[^/]*\.ts$/;
/** Small ones that several pieces share, in one file: each by itself would be a request of its own. */
const SMALL =
  /\/web\/(ui\/atRest|kinds\/shared\/(OptionMark|ClearButton))\.tsx?$|\/core\/(numbers\/(exact|numberFormat|readNumber)|kinds\/shared\/richText|marking\/notesInText)\.ts$/;
/** The same, of what the first view of the desk does without. */
const SMALL_BEHIND =
  /\/web\/(ui\/(LongText|Pill|Progress|times)|live\/(useLive|Talk)|documents\/InPlace|kit\/(place|textScopes|fieldInUse|useDragged|drawHighlights|useHighlights|Strokes))\.tsx?$|\/core\/(documents\/(everyNode|documentAsText)|messages\/dates|kinds\/shared\/(axis|entries)|kit\/notes)\.ts$/;
const KIND = /\/core\/kinds\/([^/]+)\/(candidate|messages\.en)\.ts$/;
const ICONS = /\/lucide-react\//;
const NOT_KEPT = /\/KaTeX_[^/]+\.(woff|ttf)$/;

/** The service worker beside the pages, and the list of files it keeps for a desk without a network. */
const offline: Plugin = {
  name: 'offline',
  apply: 'build',
  async writeBundle(_options, output) {
    const chunks = new Map(
      Object.values(output).flatMap((one) => (one.type === 'chunk' ? [[one.fileName, one] as const] : [])),
    );
    const reached = new Set<string>();
    const reach = (name: string, dynamic: boolean): void => {
      const chunk = chunks.get(name);
      if (!chunk || reached.has(name)) return;
      reached.add(name);
      for (const next of [...chunk.imports, ...(dynamic ? chunk.dynamicImports : [])]) reach(next, true);
    };
    for (const { fileName, isEntry, name } of chunks.values())
      if (isEntry) reach(fileName, false);
      else if (CANDIDATE_PAGES.includes(name)) reach(fileName, true);
    const files = Object.keys(output).filter(
      (name) =>
        name.startsWith('assets/') &&
        !NOT_FOR_THE_DESK.test(name) &&
        (!chunks.has(name) || reached.has(name)),
    );
    const some = Object.entries(FOR_SOME).map(
      ([group, names]) => [group, files.filter((name) => names.test(`/${name}`))] as const,
    );
    const rare = new Set(some.flatMap(([, names]) => names));
    const listed = {
      desk: files.filter((name) => !rare.has(name) && !NOT_KEPT.test(name)),
      ...Object.fromEntries(some),
    };
    const addresses = Object.entries(listed).map(([group, names]) => [
      group,
      names.map((name) => `/${name}`),
    ]);
    writeFileSync(path.join(OUT, 'desk-files.json'), JSON.stringify(Object.fromEntries(addresses)));
    await bundle({
      entryPoints: [path.resolve(import.meta.dirname, 'web/serviceWorker.ts')],
      outfile: path.join(OUT, 'service-worker.js'),
      bundle: true,
      minify: true,
    });
  },
};

/** What of our own each file was built from, for the test that no key half can be reached from the desk. */
const modules: Plugin = {
  name: 'modules',
  apply: 'build',
  writeBundle(_options, output) {
    const own = (id: string) => path.relative(import.meta.dirname, id).split('?')[0]!;
    const chunks = Object.values(output).flatMap((file) =>
      file.type === 'chunk'
        ? [{ name: file.fileName, imports: file.imports, modules: Object.keys(file.modules).map(own) }]
        : [],
    );
    const all = chunks.map((chunk) => ({
      ...chunk,
      modules: chunk.modules.filter((id) => !id.startsWith('..') && !id.startsWith('node_modules')),
    }));
    writeFileSync(path.resolve(import.meta.dirname, 'dist/modules.json'), JSON.stringify(all));
  },
};

/** Short files are not worth it, and what is packed in itself gets no shorter. */
const PACKED = { least: 2048, names: /\.(js|mjs|css|json|wasm|svg|snapshot)$/ };
const brotli = promisify(brotliCompress);

/** Packs each file beside itself, so that the server need not do it for everybody who asks. */
const pack: Plugin = {
  name: 'pack',
  apply: 'build',
  closeBundle: async () => {
    const entries = await readdir(OUT, { recursive: true, withFileTypes: true });
    const files = entries
      .filter((entry) => entry.isFile() && PACKED.names.test(entry.name))
      .map((entry) => path.join(entry.parentPath, entry.name));
    // Better than half of the greatest effort's gain, in a twentieth of its time.
    const params = { [constants.BROTLI_PARAM_QUALITY]: 6 };
    await Promise.all(
      files.map(async (file) => {
        const bytes = await readFile(file);
        if (bytes.length >= PACKED.least) await writeFile(`${file}.br`, await brotli(bytes, { params }));
      }),
    );
  },
};

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss(), offline, modules, pack],
  server: { port: 4601, strictPort: true, proxy: { '/api': 'http://127.0.0.1:4600' } },
  worker: { format: 'es' },
  build: {
    outDir: OUT,
    emptyOutDir: true,
    target: 'es2022',
    modulePreload: {
      // The list of what each part needs would itself be loaded first: it is told only of the pages where a candidate waits.
      resolveDependencies: (file, needed) =>
        AT_ONCE.test(file) ? needed : needed.filter((name) => name.endsWith('.css')),
    },
    // Fonts stay files: the content policy has no `data:` for them.
    assetsInlineLimit: (file) => (/\.woff2?$/.test(file) ? false : undefined),
    chunkSizeWarningLimit: 1500,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'shared', test: SHARED, priority: 3 },
            { name: 'small', test: SMALL, priority: 2 },
            { name: 'small-behind', test: SMALL_BEHIND, priority: 2 },
            { name: 'icons', test: ICONS, priority: 2, minShareCount: 2 },
            { name: (id) => KIND.exec(id)![1]!, test: KIND, priority: 1 },
          ],
        },
      },
    },
  },
});
