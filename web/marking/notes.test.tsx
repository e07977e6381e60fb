import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { MarkingScript } from '../../core/marking/api';
import { script, openTable, posted, next } from '../testing/markingTable';

afterEach(() => {
  vi.unstubAllGlobals();
  localStorage.clear();
});

describe('notes on a script', () => {
  it('adds a note on words chosen by keys, and shows it in the margin', async () => {
    const calls = await openTable([script(11, 'The cooler failed at four')]);
    const words = screen.getByText('The cooler failed at four').firstChild!;
    const range = document.createRange();
    range.setStart(words, 4);
    range.setEnd(words, 10);
    document.getSelection()!.removeAllRanges();
    document.getSelection()!.addRange(range);
    await userEvent.keyboard('n');
    const note = await screen.findByRole('textbox', { name: 'Text of note 1' });
    expect(note).toHaveFocus();
    await userEvent.keyboard('Which one?{Enter}');
    await userEvent.click(screen.getByRole('heading', { level: 1 }));
    await userEvent.keyboard('32{Enter}');
    await screen.findByText('This item is done');
    expect(posted(calls)).toMatchObject({
      notes: [
        { text: 'Which one?', component: 'f', anchor: { on: 'text', start: 4, end: 10, quote: 'cooler' } },
      ],
    });
  });

  it('hangs a note on a cell or an object at its own place, and shows its number there and at the credit', async () => {
    const credit = (component: string, text: string) => ({
      component,
      hundredths: 100,
      of: 100,
      verdict: 'right' as const,
      reasons: [],
      name: { code: 'author.text', values: { text } },
      overridden: false,
    });
    const pairs: MarkingScript = {
      ...script(11, ''),
      kind: 'match',
      shown: {
        left: [
          { key: 'a', text: 'rye' },
          { key: 'b', text: 'oat' },
        ],
        right: [{ key: 'x', text: 'cold' }],
        once: false,
        leftOver: false,
      },
      response: { pairs: { a: 'x', b: 'x' } },
      credits: [credit('a', 'rye'), credit('b', 'oat')],
    };
    const calls = await openTable([pairs]);
    const oat = screen.getByText('oat', { selector: 'li > span' }).closest('li')!;
    await userEvent.click(within(oat).getByRole('button', { name: 'Add a note here' }));
    await userEvent.keyboard('not at that warmth');
    await userEvent.click(screen.getByRole('button', { name: 'Add a note to: rye' }));
    await userEvent.keyboard('well seen');
    expect(within(oat).getByRole('button', { name: 'Note 1' })).toHaveAttribute('data-note');
    const machine = screen.getByRole('region', { name: 'Marked automatically' });
    expect(within(machine).getAllByRole('button', { name: /^Note \d$/ })).toHaveLength(2);
    await userEvent.keyboard('{Escape}12');
    await userEvent.click(next());
    await screen.findByText('This item is done');
    expect(posted(calls)).toMatchObject({
      notes: [
        { anchor: { on: 'component', key: 'b' }, text: 'not at that warmth' },
        { anchor: { on: 'component', key: 'a' }, text: 'well seen' },
      ],
    });
  });
});
