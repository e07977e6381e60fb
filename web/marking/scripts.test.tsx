import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { MarkingTableData } from '../../core/marking/api';
import { fakeServer, Refused } from '../testing/fakeServer';
import { script, table, draw, openTable, total, next, level } from '../testing/markingTable';

afterEach(() => {
  vi.unstubAllGlobals();
  Reflect.deleteProperty(Element.prototype, 'scrollTo');
  localStorage.clear();
});

describe('from one script to the next', () => {
  it('begins each script at the top, with nothing of the one before', async () => {
    // As in newer browsers: what is given back must not be taken for something to clean up with.
    const scrolled = vi.fn((): unknown => Promise.resolve());
    Element.prototype.scrollTo = scrolled;
    await openTable([script(11, 'one'), script(12, 'two')]);
    await userEvent.type(screen.getByRole('textbox', { name: 'Comment to the candidate' }), 'of the first');
    await userEvent.click(level('Facts', /^3/));
    await userEvent.click(level('Language', /^2/));
    await userEvent.click(next());
    await screen.findByText('script QX-12 · 1 word');
    expect(total()).toHaveTextContent('– of 5 · facts, language open');
    expect(scrolled).toHaveBeenCalledWith({ top: 0 });
    expect(screen.getByRole('textbox', { name: 'Comment to the candidate' })).toHaveValue('');
    expect(screen.queryByRole('radio', { checked: true })).toBeNull();
    expect(document.body).toHaveFocus();
    // Enter presses nothing, and gives no mark.
    await userEvent.keyboard('{Enter}');
    expect(total()).toHaveTextContent('– of 5');
  });

  it('says that more is on its way where the scripts here are marked before the next ones come', async () => {
    let [marked, comes] = [false, () => undefined as void];
    const later = new Promise<MarkingTableData>((resolve) => {
      comes = () => resolve(table([script(12, 'two')], 1));
    });
    fakeServer({
      'GET /marking/piles/1/note/A': () => (marked ? later : { ...table([script(11, 'one')]), left: 2 }),
      'PUT /marking/tasks/11/draft': () => ({}),
      'POST /marking/tasks/11': () => {
        marked = true;
        return { told: null };
      },
    });
    draw();
    await screen.findByText('script QX-11 · 1 word');
    await userEvent.keyboard('32{Enter}');
    expect(await screen.findByText('Loading the next scripts …')).toBeVisible();
    comes();
    expect(await screen.findByText('script QX-12 · 1 word')).toBeVisible();
  });

  it('keeps the levels and the comment when the mark is refused', async () => {
    await openTable(
      [script(11, 'one')],
      () => new Refused(409, 'not-yours', 'This script is with another assessor now.'),
    );
    await userEvent.keyboard('12');
    await userEvent.type(screen.getByRole('textbox', { name: 'Comment to the candidate' }), 'short');
    await userEvent.click(next());
    expect(await screen.findByText('This script is with another assessor now.')).toBeVisible();
    expect(screen.getByRole('textbox', { name: 'Comment to the candidate' })).toHaveValue('short');
    expect(level('Language', /^2, level 2/)).toBeChecked();
  });

  it('tells of an agreed mark before it goes on, and of what the lead has added', async () => {
    const told = {
      script: 'QX-11',
      practice: false,
      within: false,
      drifted: false,
      reason: 'Both lots are named.',
      yours: [{ component: 'f', hundredths: 0, level: 0, points: null }],
      agreed: [{ component: 'f', hundredths: 300, level: 2, points: null }],
    };
    const news = { id: 4, text: 'Half a degree is enough.', at: 1, isNew: true, touches: 3 };
    await openTable([script(11, 'one'), script(12, 'two')], () => ({ told }), { clarifications: [news] });
    expect(screen.getByText('Half a degree is enough.')).toBeVisible();
    expect(screen.getByText(/You marked 3 scripts before/)).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'I have read it' }));
    await userEvent.click(screen.getByRole('heading', { level: 1 }));
    await userEvent.keyboard('02{Enter}');
    expect(await screen.findByText('Both lots are named.')).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'Continue' }));
    await screen.findByText('script QX-12 · 1 word');
  });

  it('says when the item is done', async () => {
    await openTable([script(11, 'one')]);
    await userEvent.keyboard('12{Enter}');
    expect(await screen.findByText('This item is done')).toBeVisible();
    await waitFor(() =>
      expect(screen.getByRole('group', { name: /Progress/ })).toHaveTextContent('1 by you'),
    );
    expect(screen.getByRole('link', { name: 'Back to the list' })).toHaveAttribute('href', '/staff/marking');
  });
});
