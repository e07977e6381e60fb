import type { Page } from '@playwright/test';
import { staffMembers } from '../demo/people';
import type { TestApp } from './testApp';
import { CAMERA_CLIP } from './paths';

/** What stands on a page without being a text of ours: units, names of keys, languages and formats. */
const NOT_OURS = `min Python JavaScript TypeScript SQL NULL Ctrl Enter Esc Tab Shift Space Home End UTC ics PDF com true false null
  Clear Sitting XXXX def return function const let`;

const WORD = /[A-Za-z]{3,}/g;

export interface Data {
  /** All that authors and staff have written, as one text. */
  readonly text: string;
  /** Single words that may stand anywhere. */
  readonly words: ReadonlySet<string>;
}

const plain = (text: string) => text.replace(/\\n|\s+/g, ' ');

/** The data of an application: what it holds may stand on a page as it is. */
export function dataOf(app: TestApp): Data {
  const tables = ['items', 'item_versions', 'paper_versions', 'rounds', 'people', 'staff'];
  const rows = tables.flatMap((table) => app.rows(`select * from ${table}`));
  const own = staffMembers.map(({ name, password }) => `${name} ${password}`);
  // The organisation that a server has where none is set.
  own.push('Hollin Reach Seed Archive');
  const words = new Set(NOT_OURS.match(WORD));
  const add = (text: string) => (text.match(WORD) ?? []).forEach((word) => words.add(word));
  for (let month = 0; month < 12; month += 1)
    for (const shape of ['long', 'short'] as const)
      add(new Date(2026, month, 1).toLocaleDateString('en-GB', { month: shape }));
  for (let day = 1; day <= 7; day += 1)
    add(new Date(2026, 10, day).toLocaleDateString('en-GB', { weekday: 'long' }));
  Intl.supportedValuesOf('timeZone').forEach(add);
  // The camera is named by its file.
  add(CAMERA_CLIP);
  return { text: plain([...rows.map((row) => JSON.stringify(row)), ...own].join(' ')), words };
}

/** Everything on a page that is read or heard. */
const textsOn = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode())
      if (!['SCRIPT', 'STYLE'].includes(node.parentElement!.tagName)) found.push(node.textContent ?? '');
    for (const element of document.querySelectorAll('*'))
      for (const name of ['aria-label', 'aria-roledescription', 'title', 'placeholder', 'alt'])
        found.push(element.getAttribute(name) ?? '');
    return [...found, document.title];
  });

/** Addresses with their secrets, receipt codes and the name of a file. */
const NO_WORDS = /test-window\.ics|https?:\/\/\S+|\b[A-Z0-9]{4}(?:-[A-Z0-9]{4}){2}\b/g;

/** The runs of unaccented letters in a text, parted by signs, figures and words that may stand anywhere. */
function runsOf(text: string, { words }: Data): string[] {
  const parted = plain(text)
    .replace(NO_WORDS, '|')
    .replace(/[^A-Za-z '’-]+/g, '|')
    .replace(WORD, (word) => (words.has(word) ? '|' : word));
  return parted.split('|').flatMap((run) => (/[A-Za-z]{3,}/.test(run) ? [run.trim()] : []));
}

/**
 * The texts of a page, seen in the pseudo-locale, that hold words which neither the data has nor a catalogue: those were
 * written into the program.
 */
export async function englishLeft(page: Page, data: Data): Promise<string[]> {
  const texts = await textsOn(page);
  const left = texts.filter((text) => runsOf(text, data).some((run) => !data.text.includes(run)));
  return [...new Set(left.map((text) => text.trim().slice(0, 120)))];
}
