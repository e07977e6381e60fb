import { Editor } from '@tiptap/react';
import { StarterKit } from '@tiptap/starter-kit';
import { expect, it, vi } from 'vitest';
import { wordLimit } from './wordLimit';

it('a hard limit keeps out what makes too many words, lets the last one be finished, and takes away always', () => {
  const refused = vi.fn();
  const editor = new Editor({
    extensions: [StarterKit, wordLimit(3, refused)],
    content: '<p>one two three</p>',
  });
  const type = (text: string) => editor.commands.insertContentAt(editor.state.doc.content.size - 1, text);
  type(' four');
  expect([editor.getText(), refused.mock.calls.length]).toEqual(['one two three', 1]);
  // A space, and more of the same word, make no further word.
  type('s ');
  expect(editor.getText()).toBe('one two threes ');
  editor.commands.insertContentAt(1, 'a pasted sentence of many words ');
  expect([editor.getText(), refused.mock.calls.length]).toEqual(['one two threes ', 2]);
  editor.commands.deleteRange({ from: 1, to: 5 });
  type('four');
  expect([editor.getText(), refused.mock.calls.length]).toEqual(['two threes four', 2]);
  editor.destroy();
});

it('a text that is longer already, as one that was brought back, can be made shorter', () => {
  const editor = new Editor({
    extensions: [StarterKit, wordLimit(2, () => undefined)],
    content: '<p>a b c d</p>',
  });
  editor.commands.deleteRange({ from: 6, to: 8 });
  expect(editor.getText()).toBe('a b c');
  editor.destroy();
});
