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
      task: 11,
      components: script(11, 'one').components,
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

describe('a script with agreed marks that was slipped in', () => {
  it('is told of when its time for corrections is over, and that it was read', async () => {
    const told = {
      task: 7,
      components: script(7, 'seven').components,
      script: 'QX-7',
      practice: false,
      within: false,
      drifted: true,
      reason: 'Both lots are named.',
      yours: [{ component: 'f', hundredths: 0, level: 0, points: null }],
      agreed: [{ component: 'f', hundredths: 300, level: 2, points: null }],
    };
    const calls = fakeServer({
      'GET /marking/piles/1/note/A': () => ({ ...table([script(11, 'one')]), told: [told] }),
      'POST /marking/tasks/7/told': () => ({}),
    });
    draw();
    expect(await screen.findByText('Both lots are named.')).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'Continue' }));
    expect(await screen.findByText('script QX-11 · 1 word')).toBeVisible();
    expect(calls.map(({ call }) => call)).toContain('POST /marking/tasks/7/told');
  });
});

describe('a script that was marked in another window', () => {
  const standing = {
    judgement: 5,
    given: [
      { component: 'f', hundredths: 100, level: 1, points: null },
      { component: 'l', hundredths: 0, level: 0, points: null },
    ],
    comment: 'from the other window',
    at: 1,
  };
  it('shows both marks, and its assessor decides', async () => {
    const calls = await openTable([script(11, 'one'), script(12, 'two')], (body) =>
      (body as { seen: number | null }).seen === 5
        ? { told: null }
        : new Refused(409, 'mark-given-elsewhere', 'Other marks.', standing),
    );
    await userEvent.keyboard('32{Enter}');
    const both = await screen.findByRole('region', { name: 'This script has other marks already' });
    expect(both).toHaveTextContent('from the other window');
    // A hurried Enter decides nothing.
    await userEvent.keyboard('{Enter}');
    expect(both).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'Use the marks given now' }));
    await screen.findByText('script QX-12 · 1 word');
    const sent = calls.filter(({ call }) => call === 'POST /marking/tasks/11').map(({ body }) => body);
    expect(sent).toMatchObject([
      { given: { f: 2, l: 1 }, seen: null },
      { given: { f: 2, l: 1 }, seen: 5 },
    ]);
  });
});

describe('scripts that were marked', () => {
  const rows = [
    { task: 5, script: 'QX-5', total: 350, at: 2, words: 'Name the lots. · Why?' },
    { task: 4, script: 'QX-4', total: 100, at: 1, words: '' },
  ];
  it('are found by code, mark or words while the item is open, and changed after a question', async () => {
    const calls = fakeServer({
      'GET /marking/piles/1/note/A': () => ({ ...table([script(11, 'one')], 2), last: rows[0] }),
      'GET /marking/piles/1/note/A/marked': () => rows,
      'POST /marking/tasks/5/take-back': () => ({}),
    });
    draw();
    await userEvent.click(await screen.findByRole('button', { name: '2 by you' }));
    const search = await screen.findByRole('searchbox');
    for (const [words, found] of [
      ['qx-4', 'QX-4'],
      ['3.5', 'QX-5'],
      ['why', 'QX-5'],
    ] as const) {
      await userEvent.clear(search);
      await userEvent.type(search, words);
      expect(screen.getByText('1 script')).toBeVisible();
      expect(screen.getByText(found)).toBeVisible();
    }
    await userEvent.click(screen.getByRole('button', { name: 'Mark QX-5 again' }));
    expect(calls.map(({ call }) => call)).not.toContain('POST /marking/tasks/5/take-back');
    await userEvent.click(screen.getByRole('button', { name: 'Change the mark' }));
    expect(calls.map(({ call }) => call)).toContain('POST /marking/tasks/5/take-back');
  });

  it('are asked about alike when the last one is taken back some time after', async () => {
    const calls = fakeServer({
      'GET /marking/piles/1/note/A': () => ({ ...table([script(11, 'one')], 2), last: rows[0] }),
      'POST /marking/tasks/5/take-back': () => ({}),
    });
    draw();
    await screen.findByText('script QX-11 · 1 word');
    await userEvent.keyboard('u');
    await userEvent.click(await screen.findByRole('button', { name: 'Leave it as it is' }));
    expect(calls.map(({ call }) => call)).not.toContain('POST /marking/tasks/5/take-back');
  });
});

describe('phrases', () => {
  it('are put in by Alt and a figure, and Enter passes on after one was pressed', async () => {
    const calls = await openTable([script(11, 'one'), script(12, 'two')]);
    await userEvent.keyboard('32{Alt>}1{/Alt}');
    const comment = screen.getByRole('textbox', { name: 'Comment to the candidate' });
    expect(comment).toHaveValue('Name the lots.');
    await userEvent.click(screen.getByText(/^Phrases/));
    await userEvent.click(screen.getByRole('button', { name: /Name the lots\./ }));
    expect(comment).toHaveValue('Name the lots. Name the lots.');
    await userEvent.keyboard('{Enter}');
    await screen.findByText('script QX-12 · 1 word');
    expect(calls.find(({ call }) => call === 'POST /marking/tasks/11')!.body).toMatchObject({
      comment: 'Name the lots. Name the lots.',
    });
  });
});

describe('a script that is taken back in the same window', () => {
  it('begins anew, with every mark to be confirmed', async () => {
    const given = { given: { f: 2, l: 1 }, comment: '', notes: [], overrides: {} };
    let left = [script(11, 'one'), script(12, 'two')];
    fakeServer({
      'GET /marking/piles/1/note/A': () => ({
        ...table(left),
        last: left.length === 1 ? { task: 11, script: 'QX-11', total: 500, at: 1, words: '' } : null,
      }),
      'PUT /marking/tasks/11/draft': () => ({}),
      'POST /marking/tasks/11': () => {
        left = [script(12, 'two')];
        return { told: null };
      },
      'POST /marking/tasks/11/take-back': () => {
        left = [{ ...script(11, 'one'), seen: 1, takenBack: true, draft: given }, script(12, 'two')];
        return {};
      },
    });
    draw();
    await screen.findByText('script QX-11 · 1 word');
    await userEvent.keyboard('32{Enter}');
    await screen.findByText('script QX-12 · 1 word');
    // At once, before anybody has heard of the mark: the one that was just passed on comes back.
    await userEvent.keyboard('u');
    await screen.findByText('script QX-11 · 1 word');
    expect(await screen.findByText(/^2 marks stand from before/)).toBeVisible();
    expect(next()).toBeDisabled();
  });
});

describe('a script by somebody whom the assessor knows', () => {
  it('is passed to another assessor, with no word on who it is', async () => {
    const calls = fakeServer({
      'GET /marking/piles/1/note/A': () => table([script(11, 'one'), script(12, 'two')]),
      'POST /marking/tasks/11/interest': () => ({}),
    });
    draw();
    await screen.findByText('script QX-11 · 1 word');
    await userEvent.click(screen.getByRole('button', { name: 'Set aside' }));
    await userEvent.click(screen.getByRole('radio', { name: 'I know the person who wrote this' }));
    expect(screen.queryByRole('textbox', { name: 'A note to the lead assessor' })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Pass it to another assessor' }));
    await waitFor(() =>
      expect(calls.find(({ call }) => call === 'POST /marking/tasks/11/interest')?.body).toEqual({}),
    );
  });
});
