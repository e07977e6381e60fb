import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Structure } from '../../core/programs/structure';
import { findWalls } from '../sandbox/lanes/walls';
import { Sandbox } from '../sandbox/sandbox';
import { ProgramTexts } from './programTexts';
import { scriptStructure } from './scriptStructure';

const files = (...texts: string[]) => texts.map((text, i) => ({ name: i === 0 ? 'program' : `f${i}`, text }));
const script = (text: string, language: 'javascript' | 'typescript' = 'javascript') =>
  scriptStructure({ language, files: files(text) });

describe('the structure of scripts', () => {
  it.each<[string, Partial<Structure>]>([
    ['const f = (n) => (n < 2 ? 1 : n * f(n - 1));', { recursion: true, loop: false, lines: 1 }],
    ['function a(n) { return b(n) }\nfunction b(n) { return n ? a(n - 1) : 0 }', { recursion: true }],
    ['const o = { walk(n) { return this.walk(n - 1) } };', { recursion: true }],
    ['class T { walk(n) { return n.next ? this.walk(n.next) : 0 } }', { recursion: true }],
    ['function f(n) { return g(n) }\nfunction g(n) { return n }\nf(1);', { recursion: false }],
    ['for (const x of [1]) { }', { loop: true }],
    ['do { } while (false)', { loop: true }],
    ['[1].map((x) => x)', { loop: false, names: ['map', 'x'] }],
    ['import fs from "fs";\nconst p = require("path");', { imports: ['fs', 'path'] }],
    ['// a comment alone\n\nconst x = 1;\n/* two\nlines */\nconst y = `a\nb`;', { lines: 3 }],
    // Words in texts and comments are no names.
    ['// sort\nconst s = "sort";', { names: ['s'] }],
  ])('%s', (text, expected) => expect(script(text)).toMatchObject(expected));

  it('is none where the text has an error; types are part of TypeScript alone', () => {
    expect(script('function f( {')).toBeNull();
    expect(script('let x: number = 1;', 'typescript')).toMatchObject({ names: ['x'] });
  });
});

describe('the structure of Python, by its own parser in the box', () => {
  const walls = { ...findWalls(), bubblewrap: null };
  const box = new Sandbox(path.resolve('dist/sandbox'), { walls });
  const texts = new ProgramTexts(box);
  beforeAll(() => box.warmUp());
  afterAll(async () => {
    box.close();
    await texts.close();
  });
  const look = (...all: string[]) => texts.look({ language: 'python', files: files(...all) }, 'a');

  it.each<[string, Partial<Structure> | null]>([
    ['def f(n):\n    return 1 if n < 2 else n * f(n - 1)\n', { recursion: true, loop: false, lines: 2 }],
    ['def a(n):\n    return b(n)\ndef b(n):\n    return a(n - 1)\n', { recursion: true }],
    ['f = lambda n: f(n - 1)\n', { recursion: true }],
    ['def f(n):\n    return g(n)\ndef g(n):\n    return n\nf(1)\n', { recursion: false }],
    ['x = [y for y in range(3)]\n', { loop: true }],
    ['import os.path\nfrom math import sqrt\n', { imports: ['math', 'os.path'], names: ['sqrt'] }],
    ['# sorted\n\nx = """a\n\nb"""\ny = 1\n', { lines: 4, names: ['x', 'y'] }],
    ['def f(n:\n', null],
  ])('%s', async (text, expected) =>
    expected === null
      ? expect(await look(text)).toBeNull()
      : expect(await look(text)).toMatchObject(expected),
  );

  it('is that of all files together, and a hostile text is none', async () => {
    expect(
      await look('from b import g\ndef f(n):\n    return g(n)\n', 'def g(n):\n    return f(n)\n'),
    ).toMatchObject({
      recursion: true,
      lines: 5,
    });
    expect(await look(`x = ${'('.repeat(5000)}1${')'.repeat(5000)}`)).toBeNull();
    const nested = {
      language: 'javascript',
      files: files(`${'['.repeat(20_000)}${']'.repeat(20_000)}`),
    } as const;
    // Whether the parser gets through or breaks down: an answer comes, and the next one too.
    await texts.look(nested, 'a');
    expect(await texts.look({ language: 'javascript', files: files('for (;;);') }, 'a')).toMatchObject({
      loop: true,
    });
  });
});
