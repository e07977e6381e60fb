import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { troubleCodes, type Trouble } from '../../core/health/api';
import { fakeServer, Refused } from '../testing/fakeServer';
import { StaffShell } from '../testing/StaffShell';
import { Operations } from './Operations';

afterEach(() => vi.unstubAllGlobals());

const NOON = Date.UTC(2026, 10, 24, 12);
const open = (troubles: readonly Trouble[], more: Parameters<typeof fakeServer>[0] = {}) => {
  const calls = fakeServer({ 'GET /operations': () => ({ troubles, serverNow: NOON }), ...more });
  render(<Operations />, { wrapper: StaffShell });
  return calls;
};

describe('what is wrong with the server', () => {
  it.each(troubleCodes)('is told in a sentence: %s', async (code) => {
    open([{ code, since: NOON, count: 2, aheadMs: -3 * 60_000 }]);
    const told = await screen.findByRole(code === 'disk-low' || code === 'jobs-failed' ? 'status' : 'alert');
    expect(told.textContent).toMatch(/^(The server’s |Another program |The clock |2 background )/);
    expect(told.textContent).not.toContain('{{');
  });

  it('the machine’s clock is used at a coordinator’s word, with a reason; a refusal keeps what was typed', async () => {
    let tries = 0;
    const calls = open([{ code: 'clock', since: NOON, aheadMs: 3_600_000 }], {
      'POST /operations/believe-clock': () =>
        ++tries === 1
          ? new Refused(409, 'clock-right', 'Nothing to do.')
          : { troubles: [], serverNow: NOON + 3_600_000 },
    });
    expect(await screen.findByText(/jumped forward by 60 min/)).toBeVisible();
    const use = screen.getByRole('button', { name: /^Use the machine’s clock/ });
    expect(use).toBeDisabled();
    await userEvent.type(screen.getByLabelText('Reason (kept on record)'), 'suspended at lunch');
    await userEvent.click(use);
    expect(await screen.findByText('Nothing to do.')).toBeVisible();
    expect(screen.getByLabelText('Reason (kept on record)')).toHaveValue('suspended at lunch');
    await userEvent.click(use);
    await vi.waitFor(() => expect(screen.queryByText(/jumped forward/)).toBeNull());
    expect(calls.at(-1)!.body).toEqual({ reason: 'suspended at lunch' });
  });
});
