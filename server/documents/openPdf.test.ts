import { expect, it } from 'vitest';
import { TaggedPdf } from '../printing/TaggedPdf';
import { openPdf } from './openPdf';

it('opens a document, and leaves the language as fast as it was', async () => {
  const { parse, stringify } = JSON;
  const push = Object.getOwnPropertyDescriptor(Array.prototype, 'push');
  const written = new TaggedPdf({ title: 'A sheet', author: 'The archive', language: 'en-GB' });
  const task = await openPdf(await written.end(() => 'foot'));
  expect((await task.promise).numPages).toBe(1);
  await task.destroy();
  expect([JSON.parse, JSON.stringify]).toEqual([parse, stringify]);
  expect(Object.getOwnPropertyDescriptor(Array.prototype, 'push')).toEqual(push);
  // Written in the machine's own code, not in the library's.
  for (const own of [JSON.parse, JSON.stringify, Array.prototype.push])
    expect(Function.prototype.toString.call(own)).toContain('[native code]');
});
