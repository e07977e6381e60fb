import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { StaffAccount } from '../../core/accounts/api';
import { fakeServer, Refused } from '../testing/fakeServer';
import { faultsOf } from '../testing/faultsOf';
import { StaffShell } from '../testing/StaffShell';
import { AccountPage } from './AccountPage';
import { StaffAccounts } from './StaffAccounts';

afterEach(() => vi.unstubAllGlobals());

describe('one’s own account', () => {
  const type = async (current: string, wanted: string, again: string) => {
    for (const [label, text] of [
      ['Current password', current],
      ['New password', wanted],
      ['New password, again', again],
    ] as const) {
      await userEvent.clear(screen.getByLabelText(label));
      await userEvent.type(screen.getByLabelText(label), text);
    }
    await userEvent.click(screen.getByRole('button', { name: 'Change the password' }));
  };

  it('has its password changed; a slip is told and nothing is sent, a refusal keeps what was typed', async () => {
    let tries = 0;
    const calls = fakeServer({
      'POST /me/password': () =>
        ++tries === 1 ? new Refused(403, 'wrong-password', 'The current password is wrong.') : {},
      'POST /me/end-other-sessions': () => ({}),
    });
    const { container } = render(<AccountPage />, { wrapper: StaffShell });
    expect(await faultsOf(container)).toEqual([]);
    await type('old', 'kelp-on-the-line', 'kelp-on-the-lime');
    expect(await screen.findByText(/^The two new passwords are different/)).toBeVisible();
    expect(calls).toEqual([]);
    await type('wrong', 'kelp-on-the-line', 'kelp-on-the-line');
    expect(await screen.findByText('The current password is wrong.')).toBeVisible();
    expect(screen.getByLabelText('New password')).toHaveValue('kelp-on-the-line');
    await type('old', 'kelp-on-the-line', 'kelp-on-the-line');
    expect(await screen.findByText(/^Your password is changed/)).toBeVisible();
    expect(screen.getByLabelText('Current password')).toHaveValue('');
    expect(calls.at(-1)!.body).toEqual({ current: 'old', wanted: 'kelp-on-the-line' });
    await userEvent.click(screen.getByRole('button', { name: 'Sign out in every other browser' }));
    expect(await screen.findByText('You are signed out in every other browser.')).toBeVisible();
  });
});

describe('accounts of the staff', () => {
  const account = (id: number, more: Partial<StaffAccount>): StaffAccount => ({
    id,
    name: `Person ${id}`,
    email: `person.${id}@example.org`,
    roles: ['assessor', 'lead'],
    disabledAt: null,
    own: false,
    sessions: 0,
    ...more,
  });

  it('are disabled and enabled, and signed out, each after a question; one’s own is not disabled', async () => {
    let accounts = [
      account(1, { own: true, roles: ['coordinator'], sessions: 1 }),
      account(2, { sessions: 2 }),
    ];
    const calls = fakeServer({
      'GET /staff-accounts': () => accounts,
      'POST /staff-accounts/2/disabled': (body) => {
        const disabledAt = (body as { disabled: boolean }).disabled ? 1 : null;
        accounts = [accounts[0]!, { ...accounts[1]!, disabledAt, sessions: 0 }];
        return accounts;
      },
      'POST /staff-accounts/1/end-sessions': () => accounts,
    });
    const { container } = render(<StaffAccounts />, { wrapper: StaffShell });
    const row = async (name: string) => within((await screen.findByText(name)).closest('tr')!);
    expect((await row('Person 1')).queryByRole('button', { name: 'Disable' })).toBeNull();
    expect((await row('Person 2')).getByText('assessor, lead assessor')).toBeVisible();
    expect((await row('Person 2')).getByText('in 2 browsers')).toBeVisible();
    expect(await faultsOf(container)).toEqual([]);
    await userEvent.click((await row('Person 2')).getByRole('button', { name: 'Disable' }));
    const question = within(screen.getByRole('alertdialog'));
    expect(question.getByText(/signed out everywhere at once/)).toBeVisible();
    await userEvent.click(question.getByRole('button', { name: 'Disable' }));
    expect(await (await row('Person 2')).findByText(/^disabled since/)).toBeVisible();
    await userEvent.click((await row('Person 2')).getByRole('button', { name: 'Enable' }));
    expect(await (await row('Person 2')).findByText('enabled')).toBeVisible();
    expect(calls.map(({ call, body }) => [call, body])).toEqual([
      ['GET /staff-accounts', undefined],
      ['POST /staff-accounts/2/disabled', { disabled: true }],
      ['POST /staff-accounts/2/disabled', { disabled: false }],
    ]);
  });
});
