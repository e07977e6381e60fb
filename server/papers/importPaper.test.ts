import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { unzipSync, zipSync } from 'fflate';
import sharp from 'sharp';
import { filesIn } from '../../core/documents/filesIn';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Page } from '../../core/lists/list';
import type { ImportReport, PaperRow } from '../../core/papers/importApi';
import type { AudioNode, VideoNode } from '../../core/documents/document';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { serve, type Served } from '../testing/serve';

let app: Served;
let coordinator: ApiClient;
beforeAll(async () => {
  app = await serve();
  coordinator = app.staff('coordinator');
});
afterAll(() => app.close());

const EXAMPLE = readFileSync('docs/paper-example.json', 'utf8');
type Json = Record<string, unknown>;
const changed = (change: (paper: Json) => void): string => {
  const paper = JSON.parse(EXAMPLE) as Json;
  change(paper);
  return JSON.stringify(paper);
};

async function send(how: 'check' | 'publish', file: string | Uint8Array, client = coordinator) {
  const body = typeof file === 'string' ? new TextEncoder().encode(file) : file;
  return client.send<ImportReport & Refusal>(`/papers/import/${how}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: body as Uint8Array<ArrayBuffer>,
  });
}
const told = ({ body }: { body: ImportReport }) =>
  body.issues.map(({ path, message }) => [path, message.code]);
const paperRows = () => app.wired.services.db.query.paperVersions.findMany().sync().length;

describe('the example of programs', () => {
  const example = readFileSync('docs/coding-example.json', 'utf8');
  const codes = async (file: string) => {
    const { body } = await send('check', file);
    return body.issues.map(({ path, severity, message }) => [path, severity, message.code]);
  };

  it('has solutions that pass all of its cases, and wrong ones that its hidden cases find', async () => {
    expect(await codes(example)).toEqual([]);
  });

  it('is not published where a solution fails, and says at which case; a wrong one that passes is advice', async () => {
    const failing = example.replace('"expected": 5', '"expected": 4');
    const path = 'sections.0.items.3.parts.0.content.key.solutions';
    expect(await codes(failing)).toEqual([[path, 'severe', 'code.solution-wrong']]);
    const { body } = await send('publish', failing);
    expect([body.published, body.issues[0]!.message.values]).toEqual([
      null,
      { language: 'Python', title: 'four lots' },
    ]);
    const paper = JSON.parse(example) as { sections: { items: { parts: { content: { key: Json } }[] }[] }[] };
    const { key } = paper.sections[0]!.items[0]!.parts[0]!.content;
    const [right] = key.solutions as Json[];
    key.solutions = [right, { ...right, right: false }];
    expect(await codes(JSON.stringify(paper))).toEqual([
      ['sections.0.items.0.parts.0.content.key.solutions', 'advice', 'code.wrongNotFound'],
    ]);
  });
});

describe('the published example', () => {
  it('has a schema that is as the kinds of questions are now', () => {
    execFileSync('node', ['--import', 'tsx', 'scripts/paperSchema.ts', '--check']);
  });

  it('is looked through without a trace, published, and published again as its next version', async () => {
    const check = await send('check', EXAMPLE);
    expect(check.body).toMatchObject({ issues: [], published: null });
    expect(check.body.preview!.questions.map((q) => q.title)).toHaveLength(4);
    expect(JSON.stringify(check.body.preview)).not.toContain('"right"');
    expect(paperRows()).toBe(0);
    const { published } = (await send('publish', EXAMPLE)).body;
    expect((await coordinator.get<CandidatePaper>(`/papers/${published}`)).body.title).toBe(
      'Cold-store basics',
    );
    const again = await send(
      'publish',
      changed((paper) => {
        paper.minutes = 25;
      }),
    );
    expect([again.body.changed, paperRows()]).toEqual([[], 2]);
    const one = await send(
      'publish',
      EXAMPLE.replace('How many people work', 'How many persons work altogether'),
    );
    // One item has changed: the others stay the versions they are.
    expect(one.body.changed).toEqual(['The first shift']);
    expect(app.wired.services.db.query.itemVersions.findMany().sync()).toHaveLength(5);
  });
});

it('two people who publish the same file at once get a version each', async () => {
  const file = changed((paper) => {
    paper.key = 'at-once';
    const sections = paper.sections as { items: { key: string }[] }[];
    for (const item of sections.flatMap((section) => section.items)) item.key = `once-${item.key}`;
  });
  const both = await Promise.all([send('publish', file), send('publish', file)]);
  expect(both.map(({ status }) => status)).toEqual([200, 200]);
  const { rows } = (await coordinator.get<Page<PaperRow>>('/papers?size=200')).body;
  expect(rows.filter(({ key }) => key === 'at-once').map(({ version }) => version)).toEqual([2, 1]);
});

describe('a file with mistakes', () => {
  it('is told all of them at once, each with its place in the file, and nothing is kept', async () => {
    const before = paperRows();
    const report = await send(
      'publish',
      changed((paper) => {
        delete paper.title;
        const sections = paper.sections as { items: { parts: { prompt: string; content: Json }[] }[] }[];
        (sections[0]!.items[0]!.parts[0]!.content.key as Json).right = ['nobody'];
        sections[1]!.items[0]!.parts[0]!.prompt = 'See [here](https://example.org).';
        sections[0]!.items[1]!.parts[0]!.prompt = '![](missing.png)';
      }),
    );
    expect(report.status).toBe(200);
    const paths = told(report).map(([path]) => path);
    expect(paths).toContain('sections.1.items.0.parts.0.prompt');
    expect(paths).toContain('sections.0.items.1.parts.0.prompt');
    expect(paths).toContain('title');
    expect([report.body.published, report.body.preview, paperRows()]).toEqual([null, null, before]);
  });

  it.each([
    ['nothing', '', 'import.empty'],
    ['no JSON', '{"title": ', 'import.notJson'],
    ['another encoding', Uint8Array.from([0x7b, 0xff, 0xfe, 0x7d]), 'import.notText'],
    [
      'two papers in a ZIP',
      zipSync({ 'a.json': new Uint8Array(2), 'b.json': new Uint8Array(2) }),
      'import.onePaper',
    ],
    ['a broken ZIP', Uint8Array.from([0x50, 0x4b, 3, 4, 0, 0]), 'import.archive'],
    [
      'an archive of too many files',
      zipSync(
        Object.fromEntries(
          Array.from({ length: 300 }, (_, n) => [n === 0 ? 'a.json' : `${n}.png`, new Uint8Array(1)]),
        ),
      ),
      'import.archive',
    ],
    // 60 MB of nothing, in 60 kB.
    ['a bomb', zipSync({ 'a.json': new Uint8Array(60 * 1024 * 1024) }), 'import.archive'],
  ])('%s is refused in words', async (_, file, code) => {
    expect(told(await send('check', file))).toEqual([['', code]]);
  });

  it.each(['[]', 'null', '7', '{"sections":[{"items":[null,7,{"parts":[null]}]}]}', '{"sections":"x"}'])(
    'of any shape is no reason to break: %s',
    async (file) => {
      const report = await send('check', file);
      expect([report.status, report.body.issues.length > 0]).toEqual([200, true]);
    },
  );

  it('is refused, unread, to anyone who may not import', async () => {
    expect((await send('check', EXAMPLE, app.staff('assessor'))).status).toBe(403);
    const stranger = await fetch(`${app.url}/api/papers/import/check`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: EXAMPLE,
    });
    expect(stranger.status).toBe(401);
  });
});

describe('files beside the paper', () => {
  const withPicture = (picture: Uint8Array, more: Record<string, Uint8Array> = {}) =>
    zipSync({
      'folder/paper.json': new TextEncoder().encode(
        changed((paper) => {
          paper.key = 'with-a-picture';
          const sections = paper.sections as { items: { key: string; parts: { prompt: string }[] }[] }[];
          for (const item of sections.flatMap((section) => section.items)) item.key = `picture-${item.key}`;
          sections[0]!.items[0]!.parts[0]!.prompt = 'Look.\n\n![A tray](tray.png)\n\nWhat is done first?';
        }),
      ),
      'folder/tray.png': picture,
      ...more,
    });

  it('are re-encoded, travel sealed with the paper, and lie open to staff', async () => {
    const create = { width: 20, height: 10, channels: 3, background: '#363' } as const;
    const exif = { IFD0: { Artist: 'whoever drew it' } };
    const png = await sharp({ create }).withExif(exif).png().toBuffer();
    const zip = withPicture(png, { 'folder/unused.png': png, '__MACOSX/._x': new Uint8Array(3) });
    const { body } = await send('publish', zip);
    expect(body.issues.map(({ severity, message }) => [severity, message.code])).toEqual([
      ['advice', 'import.unusedFile'],
    ]);
    const shown = (await coordinator.get<CandidatePaper>(`/papers/${body.published}`)).body;
    const [file] = filesIn(shown);
    const answer = await coordinator.bytes(`/media/${file}`);
    expect([answer.status, answer.type]).toEqual([200, 'image/png']);
    expect((await sharp(answer.bytes).metadata()).exif).toBeUndefined();
    expect(Object.keys(body.media)).toEqual([file]);
  });

  const withMedia = (prompt: string, files: readonly string[]) =>
    zipSync({
      'paper.json': new TextEncoder().encode(
        changed((paper) => {
          paper.key = 'with-media';
          const sections = paper.sections as {
            handouts: object[];
            items: { key: string; page?: string; introduction?: string; parts: { prompt: string }[] }[];
          }[];
          for (const item of sections.flatMap((section) => section.items)) {
            item.key = `media-${item.key}`;
            item.page = 'together';
            item.introduction = 'Listen first.';
          }
          sections[0]!.items[0]!.parts[0]!.prompt = prompt;
          sections[0]!.handouts = [
            { key: 'rules', title: 'Rules', body: '::pdf{file=collecting-rules.pdf title=Rules}' },
          ];
        }),
      ),
      ...Object.fromEntries(
        files.map((name) => [name, new Uint8Array(readFileSync(path.join('demo/media/files', name)))]),
      ),
    });
  const ALL = ['briefing.mp3', 'tray.webm', 'tray.vtt', 'collecting-rules.pdf'];
  const FILM = '::video{file=tray.webm captions=tray.vtt title=Film description="A tray"}';
  const TALK = ':::audio{file=briefing.mp3 title=Talk plays=2}\nWe start.\n:::';

  it('may be sound, film, captions and documents, of which it is known how long they are', async () => {
    const { body } = await send('publish', withMedia(`${FILM}\n\n${TALK}`, ALL));
    expect(body.issues).toEqual([]);
    const { questions, sections } = (await coordinator.get<CandidatePaper>(`/papers/${body.published}`)).body;
    const [film, talk] = questions[0]!.parts[0]!.prompt.blocks as [VideoNode, AudioNode];
    // ffprobe: 20.01 s and 62.85 s.
    expect([film.seconds, talk.seconds, talk.plays]).toEqual([20, 62.9, 2]);
    expect(sections[0]!.handouts[0]!.body.blocks[0]).toMatchObject({ type: 'pdf', pages: 2 });
    expect([questions[0]!.page, questions[0]!.introduction.blocks.length]).toEqual(['together', 1]);
    for (const [file, type] of [
      [film.file, 'video/webm'],
      [film.captions, 'text/vtt'],
      [talk.file, 'audio/mpeg'],
    ]) {
      const answer = await coordinator.bytes(`/media/${file}`, { Range: 'bytes=0-3' });
      expect([answer.status, answer.type, answer.bytes.length]).toEqual([206, type, 4]);
    }
  });

  it.each([
    [
      'one that is not what its name says',
      'Look',
      { 'tray.vtt': 'captions' },
      ['tray.vtt', 'import.fileBroken'],
    ],
    [
      'a document cut in two',
      'Look',
      { 'collecting-rules.pdf': '%PDF-1.4 cut' },
      ['collecting-rules.pdf', 'import.fileBroken'],
    ],
    [
      'a recording twice, with other plays',
      `${TALK}\n\n${TALK.replace('plays=2', 'plays=3')}`,
      {},
      ['sections.0.items.0.parts.0.prompt', 'document.samePlays'],
    ],
  ])('%s is told', async (_, prompt, instead: Record<string, string>, issue) => {
    const zip = unzipSync(withMedia(prompt, ALL));
    for (const [name, text] of Object.entries(instead)) zip[name] = new TextEncoder().encode(text);
    expect(told(await send('check', zipSync(zip)))).toContainEqual(issue);
  });

  it('that cannot be read keep the paper from being published', async () => {
    const zip = withPicture(new TextEncoder().encode('<svg onload="alert(1)"/>'));
    expect(told(await send('publish', zip))).toContainEqual(['tray.png', 'import.fileBroken']);
  });
});

describe('a paper with an adaptive section', () => {
  it('is in the documentation as an example without a problem', async () => {
    const { body } = await send('check', readFileSync('docs/adaptive-example.json', 'utf8'));
    expect(body.issues).toEqual([]);
    expect(body.adaptive).toMatchObject([{ key: 'A', questions: 6, calibratedOn: 0, estimated: 6 }]);
  });

  /** The first section of the example asks its own questions by what was answered so far. */
  const adaptive = (thresholds: number[]) =>
    changed((paper) => {
      const [first] = paper.sections as { items: Json[] }[];
      const items = Array.from({ length: 4 }, (_, i) => ({
        key: `asked-${i}`,
        title: `Question ${i}`,
        measures: { topic: 'seed', difficulty: 2, calibration: { a: 1, thresholds, persons: 600 } },
        parts: [
          {
            key: 'A',
            kind: 'choice',
            marks: 100,
            prompt: `What is number ${i}?`,
            content: {
              asked: {
                options: ['a', 'b', 'c'].map((key) => ({ key, text: `It is ${key}${i}.` })),
                mode: 'one',
              },
              key: { right: ['a'] },
            },
          },
        ],
      }));
      paper.key = 'adaptive-example';
      paper.sections = [
        {
          ...first,
          key: 'A',
          minutes: 10,
          navigation: 'forward only',
          shuffled: false,
          draws: [],
          items,
          adaptive: {
            prior: { mean: 0, sd: 1 },
            targetError: 0.5,
            leastLength: 2,
            greatestLength: 3,
            topics: [{ topic: 'seed', share: 1 }],
            best: 2,
            exposureLimit: 1,
            scale: { mean: 500, step: 100 },
            levels: [{ title: 'A', from: 0 }],
          },
        },
      ];
    });

  it('is refused with the place of what is wrong, and else shown with its pool to coordinators only', async () => {
    const wrong = await send('check', adaptive([0, 1]));
    expect(told(wrong)).toContainEqual([
      'sections.0.items.0.measures.calibration.thresholds',
      'section.thresholds',
    ]);
    expect(wrong.body.preview).toBeNull();
    const checked = (await send('check', adaptive([0.5]))).body;
    expect(checked.adaptive).toMatchObject([{ key: 'A', questions: 4, calibratedOn: 600 }]);
    expect(JSON.stringify(checked.preview)).not.toContain('thresholds');
    const { body } = await send('publish', adaptive([0.5]));
    expect(body.issues.filter(({ severity }) => severity === 'severe')).toEqual([]);
    const path = `/papers/${body.published}/adaptive`;
    const { body: views } = await coordinator.get<{ pool: unknown[]; calibratedOn: number }[]>(path);
    expect(views).toHaveLength(1);
    expect(views[0]).toMatchObject({ calibratedOn: 600, questions: 4, minutes: 10 });
    expect(views[0]!.pool[0]).toEqual({
      key: 'asked-0',
      parameters: { a: 1, thresholds: [0.5] },
      topics: ['seed'],
    });
    expect((await app.staff('assessor').get(path)).status).toBe(403);
    expect((await coordinator.get('/papers/999999/adaptive')).status).toBe(404);
  });
});
