import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes, useLocation } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Role } from '../../core/rounds/api';
import { SignIn } from '../accounts/SignIn';
import { get } from '../api/client';
import { fakeServer, Refused } from '../testing/fakeServer';
import { StaffFrame } from './StaffFrame';
import { StaffHome } from './StaffHome';

afterEach(() => vi.unstubAllGlobals());

const show = (at: string) =>
  render(
    <MemoryRouter initialEntries={[at]}>
      <Routes>
        <Route path="/sign-in" element={<SignIn />} />
        <Route path="/staff" element={<StaffFrame />}>
          <Route index element={<StaffHome />} />
          <Route path="rounds" element={<p>all rounds</p>} />
          <Route path="watch" element={<p>the watch room</p>} />
          <Route path="marking" element={<p>the piles</p>} />
          <Route path="marking/:round" element={<Lookup />} />
        </Route>
      </Routes>
    </MemoryRouter>,
  );
/** A page that asks the server for something when it is told to. */
function Lookup() {
  const { search } = useLocation();
  return (
    <button type="button" onClick={() => void get('/lookup').catch(() => undefined)}>
      look up{search}
    </button>
  );
}
const member = (...roles: Role[]) => ({ name: 'Odile Varr', roles });
const notSignedIn = () => new Refused(401, 'not-signed-in', 'Sign in first.');
const signInPage = () => screen.findByRole('heading', { name: 'Staff sign in' });

describe('the staff’s side', () => {
  it.each([
    [['coordinator'], 'all rounds', ['Rounds', 'Papers', 'Outbox', 'Watch', 'Results', 'Accounts']],
    [['invigilator'], 'the watch room', ['Watch']],
    [['assessor'], 'the piles', ['Marking']],
  ] as const)('shows %s their own areas and no other, and opens the first', async (roles, first, areas) => {
    fakeServer({ 'GET /me': () => member(...roles) });
    show('/staff');
    expect(await screen.findByText(first)).toBeVisible();
    // Behind the areas, one's own account by one's name.
    expect(screen.getAllByRole('link').map((link) => link.textContent.trim())).toEqual([
      ...areas,
      'Odile Varr',
    ]);
  });

  it('sends whoever is not signed in to the door, and back in from there', async () => {
    let inside = false;
    const calls = fakeServer({
      'GET /me': () => (inside ? member('coordinator') : notSignedIn()),
      'POST /sign-in': (body) => {
        inside = (body as { password: string }).password === 'kelp';
        return inside
          ? member('coordinator')
          : new Refused(401, 'wrong-sign-in', 'They do not belong together.');
      },
    });
    show('/staff');
    expect(await signInPage()).toBeVisible();
    await userEvent.type(screen.getByLabelText('E-mail'), 'odile@example.org');
    await userEvent.type(screen.getByLabelText('Password'), 'wrong');
    await userEvent.click(screen.getByRole('button', { name: 'Sign in' }));
    expect(await screen.findByText('They do not belong together.')).toBeVisible();
    expect(screen.getByLabelText('E-mail')).toHaveValue('odile@example.org');
    await userEvent.clear(screen.getByLabelText('Password'));
    await userEvent.type(screen.getByLabelText('Password'), 'kelp');
    await userEvent.click(screen.getByRole('button', { name: 'Sign in' }));
    expect(await screen.findByText('all rounds')).toBeVisible();
    expect(calls.findLast(({ call }) => call === 'POST /sign-in')!.body).toEqual({
      email: 'odile@example.org',
      password: 'kelp',
    });
  });

  it('says on the page that one is signed out, and comes back to it', async () => {
    let inside = true;
    fakeServer({
      'GET /me': () => (inside ? member('assessor') : notSignedIn()),
      'GET /lookup': () => notSignedIn(),
      'POST /sign-in': () => {
        inside = true;
        return member('assessor');
      },
    });
    show('/staff/marking/7?script=QX');
    await userEvent.click(await screen.findByRole('button', { name: 'look up?script=QX' }));
    inside = false;
    await userEvent.click(await screen.findByRole('link', { name: 'Sign in, and come back to this page' }));
    await signInPage();
    await userEvent.type(screen.getByLabelText('E-mail'), 'tamsin@example.org');
    await userEvent.type(screen.getByLabelText('Password'), 'kelp');
    await userEvent.click(screen.getByRole('button', { name: 'Sign in' }));
    expect(await screen.findByRole('button', { name: 'look up?script=QX' })).toBeVisible();
  });

  it.each(['https://example.org/staff', '//example.org', '/i/a-link', '/staffroom'])(
    'never leads from the sign-in to %s',
    async (back) => {
      fakeServer({ 'GET /me': () => member('assessor'), 'POST /sign-in': () => member('assessor') });
      show(`/sign-in?back=${encodeURIComponent(back)}`);
      await userEvent.type(await screen.findByLabelText('E-mail'), 'tamsin@example.org');
      await userEvent.type(screen.getByLabelText('Password'), 'kelp');
      await userEvent.click(screen.getByRole('button', { name: 'Sign in' }));
      expect(await screen.findByText('the piles')).toBeVisible();
    },
  );

  it('does not take a lost connection for being signed out', async () => {
    fakeServer({});
    show('/staff');
    expect(await screen.findByText(/The server cannot be reached/)).toBeVisible();
    fakeServer({ 'GET /me': () => member('invigilator') });
    await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByText('the watch room')).toBeVisible();
  });

  it('says so when signing out did not come through, and leaves when it did', async () => {
    fakeServer({ 'GET /me': () => member('invigilator') });
    show('/staff');
    await userEvent.click(await screen.findByRole('button', { name: 'Sign out' }));
    expect(await screen.findByText(/The server cannot be reached/)).toBeVisible();
    fakeServer({ 'POST /sign-out': () => ({}) });
    await userEvent.click(screen.getByRole('button', { name: 'Sign out' }));
    expect(await signInPage()).toBeVisible();
  });
});
