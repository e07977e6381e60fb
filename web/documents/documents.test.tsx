import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { Block } from '../../core/documents/document';
import { faultsOf } from '../testing/faultsOf';
import { DocumentView } from './DocumentView';
import { typesIn } from '../../core/documents/everyNode';
import { loadNodes } from './lazyNodes';
import { Files, previewFiles } from '../media/fileSource';

const text = (words: string) => ({ type: 'text' as const, text: words });
const FILE = 'a'.repeat(64);
const picture: Block = { type: 'picture', file: FILE, description: 'The bay', caption: 'Plan' };
const blocks: Block[] = [
  { type: 'heading', level: 1, children: [text('Night log')] },
  {
    type: 'paragraph',
    children: [
      { type: 'meaning', says: 'a short loss', children: [text('dip')] },
      { type: 'formula', tex: 'x^2', says: 'x squared' },
      { type: 'phrase', key: 'bay', children: [text('the bay')] },
      text('<img src=x onerror=alert(1)>'),
    ],
  },
  { type: 'table', align: [null], head: [[text('Lot')]], rows: [[[text('K-1')]]] },
  { type: 'lines', start: 9, lines: [[text('one')], [], [text('two')]] },
  { type: 'language', lang: 'ar', dir: 'rtl', blocks: [{ type: 'paragraph', children: [text('مرحبا')] }] },
  { type: 'formula', tex: '\\frac{1}{2}', says: null },
  picture,
];
const document = { format: 1 as const, blocks };

it('draws every node by components, so that it can be read, heard and pressed', async () => {
  await loadNodes(typesIn([document]));
  const { container } = render(<DocumentView document={document} />);
  expect(screen.getByRole('heading', { level: 3 })).toHaveTextContent('Night log');
  expect(screen.getByRole('cell', { name: 'K-1' })).toBeVisible();
  expect(screen.getByText('x squared')).toBeInTheDocument();
  // The author's words are heard; without any, the formula's own mathematical markup.
  expect(container.querySelectorAll('.katex')).toHaveLength(2);
  expect(container.querySelectorAll('math')).toHaveLength(1);
  expect(container.querySelector('[lang=ar]')).toHaveAttribute('dir', 'rtl');
  expect(container.querySelector('[data-phrase=bay]')).toHaveTextContent('the bay');
  expect(container.querySelector('img')).toBeNull();
  // A gap between two groups of lines has no number.
  expect(['Line 9', 'Line 10'].map((name) => screen.getByLabelText(name).nextSibling?.textContent)).toEqual([
    'one',
    'two',
  ]);
  await userEvent.click(screen.getByRole('button', { name: 'dip' }));
  expect(within(screen.getByRole('dialog')).getByText('a short loss')).toBeVisible();
  await userEvent.keyboard('{Escape}');
  expect(screen.queryByRole('dialog')).toBeNull();
  expect(await faultsOf(container)).toEqual([]);
});

it('says what a picture shows where it is not on this device, and else shows it', async () => {
  const only = { format: 1 as const, blocks: [picture] };
  const { rerender } = render(<DocumentView document={only} />);
  expect(await screen.findByText('The bay')).toBeVisible();
  expect(screen.getByRole('figure')).toHaveTextContent('Picture: The bayPlan');
  rerender(
    <Files value={previewFiles({ [FILE]: `/files/${FILE}` })}>
      <DocumentView document={only} />
    </Files>,
  );
  expect(screen.getByRole('img', { name: 'The bay' })).toHaveAttribute('src', `/files/${FILE}`);
});
