/* Before all stories: a seeded database to copy, and a clip for the fake camera. */
import { execFile } from 'node:child_process';
import { existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { promisify } from 'node:util';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { CAMERA_CLIP, CHROMIUM, COHORT, ROOT, TEMPLATE } from './paths';

const FRAMES = 40;
const LOOK_AGAIN_MS = 200;

export async function drawClip(): Promise<void> {
  if (existsSync(CAMERA_CLIP)) return;
  mkdirSync(path.dirname(CAMERA_CLIP), { recursive: true });
  const source = path.join(ROOT, 'web/arrival/camera/standIn.ts');
  const bundle = await build({
    entryPoints: [source],
    bundle: true,
    write: false,
    format: 'iife',
    globalName: 'standIn',
  });
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: ['--no-sandbox', '--disable-gpu'],
  });
  const page = await browser.newPage();
  await page.addScriptTag({ content: bundle.outputFiles[0]!.text });
  const frames = await page.evaluate((count) => {
    const { standIn } = window as unknown as { standIn: typeof import('../web/arrival/camera/standIn') };
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [640, 480];
    const pen = canvas.getContext('2d')!;
    return Array.from({ length: count }, (_, i) => {
      standIn.drawScene(pen, { faces: 1, time: 0.5 + i / 20, width: 640, height: 480 });
      return canvas.toDataURL('image/jpeg', 0.9).split(',')[1]!;
    });
  }, FRAMES);
  await browser.close();
  writeFileSync(CAMERA_CLIP, Buffer.concat(frames.map((frame) => Buffer.from(frame, 'base64'))));
}

/** The demo's data in a folder of its own. */
export async function seed(folder: string, without: readonly string[] = []): Promise<void> {
  const env = { ...process.env, CLEAR_SITTING_DATA: folder };
  await promisify(execFile)(process.execPath, ['dist/demo/main.mjs', ...without], { cwd: ROOT, env });
}

const draftOf = (folder: string) => `${folder}.draft`;

/** Seeds a folder by whoever comes first; other workers wait until all of it is there. */
export async function seedOnce(folder: string): Promise<void> {
  while (!existsSync(folder)) {
    try {
      mkdirSync(draftOf(folder));
    } catch {
      // Another worker is at it.
      await setTimeout(LOOK_AGAIN_MS);
      continue;
    }
    try {
      // It may have been finished since it was looked for.
      if (existsSync(folder)) return;
      await seed(draftOf(folder));
      renameSync(draftOf(folder), folder);
    } finally {
      rmSync(draftOf(folder), { recursive: true, force: true });
    }
  }
}

export default async function prepare(): Promise<void> {
  for (const folder of [TEMPLATE, COHORT, draftOf(COHORT)]) rmSync(folder, { recursive: true, force: true });
  // The stories want an empty database; the pictures want one with the simulated scripts in it.
  const scripts = process.env.E2E_SEED === 'full' ? [] : ['--without-scripts'];
  await Promise.all([seed(TEMPLATE, scripts), drawClip()]);
}
