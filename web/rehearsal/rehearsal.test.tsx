import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { rehearsalPaper } from '../../demo/rehearsalPaper';
import { plainForm } from '../../core/forms/drawForm';
import { rehearsalScript, rehearsalSheet } from '../../core/rehearsal/scoreRehearsal';
import { scoreScript } from '../../core/scoring/script';
import type { RehearsalAnswers } from '../../core/rehearsal/api';
import type { RehearsalView } from '../../core/rehearsal/api';
import { fakeServer, Refused } from '../testing/fakeServer';
import { RehearsalPage } from './RehearsalPage';

afterEach(() => vi.unstubAllGlobals());

const view: RehearsalView = {
  organisation: 'Hollin Reach',
  checks: ['clock'],
  extraPercent: 0,
  paper: plainForm(rehearsalPaper()).paper,
};
const show = (at: string) =>
  render(
    <MemoryRouter initialEntries={[at]}>
      <Routes>
        <Route path="/r/:round/rehearsal" element={<RehearsalPage />} />
        <Route path="/i/:link/rehearsal" element={<RehearsalPage />} />
      </Routes>
    </MemoryRouter>,
  );
const button = (name: string | RegExp) => screen.findByRole('button', { name });

describe('the rehearsal', () => {
  it('leads from the checks to the desk and to the reasons, scored by one call that names the answers alone', async () => {
    let sheet: unknown;
    let before = 3;
    const calls = fakeServer({
      'GET /rehearsal/november': () => view,
      'GET /config': () => ({ now: Date.now() }),
      'POST /rehearsal/november/score': (body) => {
        const script = rehearsalScript(rehearsalPaper(), (body as RehearsalAnswers).answers);
        sheet = rehearsalSheet(script, scoreScript(script));
        return { ticket: 'mine' };
      },
      // Others come first; then it is done.
      'GET /rehearsal/score/mine': () => (before > 0 ? { before: before-- } : { sheet }),
    });
    show('/r/november/rehearsal');
    await userEvent.click(await button('Without the clock'));
    expect(await screen.findByRole('heading', { level: 1, name: 'Question 1' })).toBeVisible();
    expect(screen.queryByRole('timer')).toBeNull();
    const asked = calls.length;
    await userEvent.click(await screen.findByRole('radio', { name: 'Bram' }));
    await userEvent.click(screen.getAllByRole('button', { name: /^Last look/ })[0]!);
    await userEvent.click(await button('Hand in my paper'));
    const sure = await screen.findByRole('alertdialog');
    await userEvent.click(within(sure).getByRole('button', { name: 'Hand in my paper' }));
    expect(await screen.findByText(/3 programs are run before yours/)).toBeVisible();
    expect(
      await screen.findByRole('heading', { level: 1, name: 'Your rehearsal' }, { timeout: 10_000 }),
    ).toBeVisible();
    expect(screen.getAllByText('not answered').length).toBeGreaterThan(2);
    expect(screen.getByText('right', { exact: true })).toBeVisible();
    const answers = { 'who-on-wednesday/A': { version: 1, response: { chosen: ['bram'] } } };
    const sent = calls.slice(asked).filter(({ call }) => call.startsWith('POST'));
    expect(sent).toEqual([{ call: 'POST /rehearsal/november/score', body: { answers } }]);
    // As often as wanted.
    await userEvent.click(await button(/With the clock, 15 min/));
    expect(await screen.findByRole('timer')).toHaveTextContent(/15:00|14:59/);
  });

  it('opens by the link first where there is one, and leads back to it', async () => {
    const calls = fakeServer({
      'POST /arrival/open': () => ({}),
      'GET /rehearsal': () => view,
      'GET /config': () => ({ now: Date.now() }),
    });
    show('/i/the-link/rehearsal');
    expect(await screen.findByRole('link', { name: 'Back to my invitation' })).toHaveAttribute(
      'href',
      '/i/the-link?go',
    );
    expect(calls[0]).toEqual({ call: 'POST /arrival/open', body: { link: 'the-link' } });
  });

  it('says why it does not open', async () => {
    const message = 'Open the rehearsal from your personal link.';
    fakeServer({ 'GET /rehearsal/november': () => new Refused(409, 'link-only', message) });
    show('/r/november/rehearsal');
    expect(await screen.findByText(message)).toBeVisible();
  });
});
