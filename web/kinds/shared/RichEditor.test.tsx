import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, it } from 'vitest';
import type { RichNode } from '../../../core/kinds/shared/richText';
import { RichEditor } from './RichEditor';

const bold: RichNode = {
  type: 'doc',
  content: [
    {
      type: 'bulletList',
      content: [
        {
          type: 'listItem',
          content: [
            { type: 'paragraph', content: [{ type: 'text', text: 'held', marks: [{ type: 'bold' }] }] },
          ],
        },
      ],
    },
  ],
};
/** What was written last. */
const last = { text: null as RichNode | null };
function Held({ rich, text }: { rich: boolean; text: RichNode }) {
  const [own, setOwn] = useState(text);
  return (
    <RichEditor
      text={own}
      onChange={(written) => {
        last.text = written;
        setOwn(written);
      }}
      rich={rich}
      height=""
      labelledBy="a"
      describedBy="b"
      target="t"
    />
  );
}
const keys = async (rich: boolean, pressed: string) => {
  render(<Held rich={rich} text={{ type: 'doc', content: [] }} />);
  const box = screen.getByRole('textbox');
  act(() => box.focus());
  await userEvent.keyboard(pressed);
};

it('a plain field takes no bold and no list by keys, and shows what it was given as lines', async () => {
  await keys(false, '{Control>}b{/Control}{Control>}{Shift>}8{/Shift}{/Control}');
  expect(JSON.stringify(last.text)).not.toMatch(/bold|List/);
});

it('a plain field keeps the words of a text that had a list', () => {
  render(<Held rich={false} text={bold} />);
  const box = screen.getByRole('textbox');
  expect([box.textContent, box.querySelectorAll('li, strong').length]).toEqual(['held', 0]);
});

it('a rich field shows bold and lists', () => {
  render(<Held rich text={bold} />);
  expect(screen.getByRole('textbox').querySelectorAll('li strong')).toHaveLength(1);
});

it('bold can be chosen by keys before anything is written', async () => {
  await keys(true, '{Control>}b{/Control}');
  expect(screen.getByRole('button', { name: 'Bold' })).toHaveAttribute('aria-pressed', 'true');
});
