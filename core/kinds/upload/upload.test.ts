import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { MOST_PAGE_BYTES } from '../../files/pages';
import { say } from '../../messages/words';
import { placeFor } from '../../testing/scoreAlone';
import { readResponse } from '../readResponse';
import { emptyRich, type RichNode } from '../shared/richText';
import { upload } from './candidate';
import { uploadKey } from './key';
import { pageOf, samples } from './samples';

const [photographed, either] = samples as [(typeof samples)[0], (typeof samples)[0]];
const pages = uploadKey.show(photographed.content.asked, null, placeFor(400));
const pagesOrText = uploadKey.show(either.content.asked, null, placeFor(400));
const typed: RichNode = {
  type: 'doc',
  content: [{ type: 'paragraph', content: [{ type: 'text', text: 'By hand.' }] }],
};
const given = (signs: string, text: RichNode = emptyRich) => ({
  pages: [...signs].map((sign) => pageOf(sign)),
  joined: 0,
  text,
});

describe('upload', () => {
  it.each([
    [pages, given(''), 'empty', 'Add a page'],
    [pagesOrText, given(''), 'empty', 'Add a page, or type your answer'],
    [pages, given('a'), 'part', 'Add 1 more page (at least 2)'],
    [pages, given('ab'), 'done', null],
    // A phone and the desk may add pages at once: nothing of it is lost, and the candidate is told.
    [pages, given('abcdef'), 'part', 'Remove 2 pages (at most 4)'],
    // Typed words are enough where either will do, with or without pages.
    [pagesOrText, given('', typed), 'done', null],
    [pagesOrText, given('a', typed), 'done', null],
  ])('tells how far it is (%#)', (shown, response, state, missing) => {
    const progress = upload.progress(shown, response);
    expect([progress.state, progress.missing && say(progress.missing)]).toEqual([state, missing]);
  });

  it.each([
    ['a page twice', pages, given('aa')],
    ['typed where only pages are taken', pages, given('ab', typed)],
    [
      'a file that is too large',
      pages,
      { ...given(''), pages: [pageOf('a', { bytes: MOST_PAGE_BYTES + 1 })] },
    ],
  ])('does not take %s', (_, shown, response) => {
    expect(upload.misfit(shown, response)?.code).toBe('upload.misfit');
    expect(upload.misfit(pagesOrText, given('ab', typed))).toBeNull();
  });

  it.each([
    ['a hash that is none', { ...pageOf('a'), hash: '../../etc/passwd' }],
    ['capitals in a hash', { ...pageOf('A') }],
    ['another type of file', { ...pageOf('a'), type: 'text/html' }],
    ['a turn by some degrees', { ...pageOf('a'), turn: 45 }],
    ['a file without bytes', { ...pageOf('a'), bytes: 0 }],
    ['the name of a file, which may tell who it is', { ...pageOf('a'), name: 'ilse.jpg' }],
  ])('does not read a page with %s', (_, page) => {
    const stored = { version: 1, response: { pages: [page], joined: 0, text: emptyRich } };
    expect(readResponse('upload', stored)).toHaveProperty('problem');
  });

  it('is described in words: how many pages, and what was typed', () => {
    expect(upload.describe(pagesOrText, given('abc', typed), say).text).toBe('3 pages\n\nBy hand.');
    expect(upload.describe(pages, given(''), say).text).toBe('');
    expect(upload.files(given('ab')).map(({ hash }) => hash[0])).toEqual(['a', 'b']);
    expect(upload.fileRules(pages)).toMatchObject({ most: 4 });
  });

  it('takes in what a joined phone has sent, once, after its own pages', () => {
    const hashes = (response: { readonly pages: readonly { readonly hash: string }[] }) =>
      response.pages.map(({ hash }) => hash[0]).join('');
    const joined = [...'xay'].map((sign) => pageOf(sign));
    const first = upload.takePages!(given('ab'), joined);
    expect([hashes(first), first.joined]).toEqual(['abxy', 3]);
    expect(upload.takePages!(first, joined)).toEqual(first);
    // A page that was removed at the desk stays removed; one that came since is added.
    const removed = { ...first, pages: first.pages.filter((page) => !page.hash.startsWith('x')) };
    expect(hashes(upload.takePages!(removed, [...joined, pageOf('z')]))).toBe('abyz');
  });

  it('is judged by people alone, and has an issue where its halves do not fit', () => {
    const { content } = photographed;
    expect(uploadKey.components(content, 400)).toMatchObject([{ key: 'w', by: 'people', of: 400 }]);
    const crossed = { ...content, asked: { ...content.asked, pagesFrom: 5 } };
    const codes = (issues: readonly { readonly message: { readonly code: string } }[]) =>
      issues.map((issue) => issue.message.code);
    expect(codes(uploadKey.check(crossed, placeFor(400)))).toEqual(['upload.pagesCross']);
    expect(codes(uploadKey.check(content, placeFor(300)))).toEqual(['author.rubricSum']);
  });
});
