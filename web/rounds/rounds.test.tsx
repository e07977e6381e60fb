import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { RoundDetail } from '../../core/rounds/api';
import type { OpenDecision } from '../../core/rounds/decisions';
import { StaffShell } from '../testing/StaffShell';
import { fakeServer, Refused } from '../testing/fakeServer';
import { InviteForm } from './InviteForm';
import { FailedJobs } from '../staff/FailedJobs';
import { Decision } from './Decision';

afterEach(() => vi.unstubAllGlobals());

describe('inviting', () => {
  async function open() {
    const invited = vi.fn();
    render(
      <MemoryRouter>
        <InviteForm round={3} onInvited={invited} />
      </MemoryRouter>,
    );
    await userEvent.click(screen.getByRole('button', { name: 'Invite a candidate' }));
    return { invited, dialog: within(screen.getByRole('dialog')) };
  }
  const fill = async (dialog: Awaited<ReturnType<typeof open>>['dialog'], fields: Record<string, string>) => {
    for (const [label, text] of Object.entries(fields)) {
      const field = dialog.getByLabelText(label);
      await userEvent.clear(field);
      await userEvent.type(field, text);
    }
  };

  it('writes the letter with every arrangement, and is ready for the next candidate', async () => {
    const calls = fakeServer({ 'POST /rounds/3/invitations': () => ({ letter: 41 }) });
    const { invited, dialog } = await open();
    await fill(dialog, {
      Name: 'Ilse Brandvold',
      'E-mail': 'ilse@example.org',
      'Extra time, %': '25',
      'Rest breaks, min': '10',
      'Time zone of the candidate': 'America/Lima',
    });
    expect(dialog.queryByLabelText('Reason (kept on record)')).toBeNull();
    await userEvent.click(dialog.getByRole('checkbox', { name: 'Transcripts instead of recordings' }));
    await userEvent.click(dialog.getByRole('checkbox', { name: 'read aloud' }));
    await userEvent.click(dialog.getByRole('checkbox', { name: 'camera' }));
    await fill(dialog, { 'Reason (kept on record)': 'arranged in writing ' });
    await userEvent.click(dialog.getByRole('button', { name: 'Invite and prepare the e-mail' }));
    expect(await dialog.findByText(/The e-mail to ilse@example.org is in the outbox/)).toBeVisible();
    expect(dialog.getByRole('link', { name: 'Read the e-mail' })).toHaveAttribute(
      'href',
      '/staff/outbox?letter=41',
    );
    expect(calls[0]!.body).toEqual({
      name: 'Ilse Brandvold',
      email: 'ilse@example.org',
      reference: null,
      extraPercent: 25,
      timeZone: 'America/Lima',
      arrangements: {
        breakMinutes: 10,
        transcripts: true,
        aids: ['read-aloud'],
        waivedChecks: ['camera'],
        reason: 'arranged in writing',
      },
    });
    expect(invited).toHaveBeenCalledOnce();
    expect(dialog.getByLabelText('Name')).toHaveValue('');
    expect(dialog.getByRole('checkbox', { name: 'camera' })).not.toBeChecked();
  });

  it('keeps what was typed when it is refused, and says why', async () => {
    fakeServer({
      'POST /rounds/3/invitations': () =>
        new Refused(409, 'already-invited', 'This address is invited already.'),
    });
    const { invited, dialog } = await open();
    await fill(dialog, { Name: 'Ilse Brandvold', 'E-mail': 'ilse@example.org' });
    await userEvent.click(dialog.getByRole('button', { name: 'Invite and prepare the e-mail' }));
    expect(await dialog.findByText('This address is invited already.')).toBeVisible();
    expect(dialog.getByLabelText('Name')).toHaveValue('Ilse Brandvold');
    expect(invited).not.toHaveBeenCalled();
  });
});

describe('a decision', () => {
  const decision: OpenDecision = {
    id: 9,
    kind: 'late-entries',
    name: 'Corin Hale',
    reference: 'HR-12',
    closedAt: 0,
    claimedHandInAt: null,
    facts: { count: 3, upTo: 7, madeFrom: 0, madeTo: 0, arrivedFrom: 0, arrivedTo: 0 },
    changes: [{ question: '4 · Moisture', leave: '', take: '8.2' }],
  };
  const round = { id: 3 } as RoundDetail;
  const show = (more: Partial<OpenDecision> = {}, onDecided = vi.fn()) =>
    render(<Decision round={round} decision={{ ...decision, ...more }} onDecided={onDecided} />);

  it.each([
    ['Count them', 'take'],
    ['Leave them out', 'leave'],
  ])('is made with a reason: %s', async (button, choice) => {
    const decided = { id: 3, decisions: [] } as unknown as RoundDetail;
    const calls = fakeServer({ 'POST /rounds/3/decisions': () => decided });
    const onDecided = vi.fn();
    show({}, onDecided);
    expect(screen.getByText('3 entries')).toBeVisible();
    expect(screen.getByText('nothing')).toBeVisible();
    expect(screen.getByRole('button', { name: button })).toBeDisabled();
    await userEvent.type(screen.getByRole('textbox', { name: 'Reason (kept on record)' }), 'power cut');
    await userEvent.click(screen.getByRole('button', { name: button }));
    await waitFor(() => expect(onDecided).toHaveBeenCalledWith(decided));
    expect(calls[0]!.body).toEqual({ id: 9, choice, reason: 'power cut' });
  });

  it('says so where nothing would change, and names what it is about', () => {
    show({ changes: [] });
    expect(screen.getByText('They would change no answer.')).toBeVisible();
    show({ kind: 'writing-in-stop', facts: {} });
    expect(screen.getByRole('button', { name: 'Mark it without that writing' })).toBeVisible();
    show({ kind: 'missing-entries', facts: { count: 2 } });
    expect(screen.getByText('2 entries are missing')).toBeVisible();
  });
});

describe('failed background work', () => {
  it('is told with what went wrong, and can be run again', async () => {
    const job = { id: 4, kind: 'score', about: 'KP3X7QAB', attempts: 5, trouble: 'the box is shut' };
    const calls = fakeServer({
      'GET /jobs/failed': () => [job],
      'POST /jobs/4/run-again': () => [],
    });
    render(<FailedJobs />, { wrapper: StaffShell });
    expect(await screen.findByText('Automatic marking of script KP3X7QAB')).toBeVisible();
    expect(screen.getByText('the box is shut')).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'Run again' }));
    await waitFor(() => expect(screen.queryByText('Automatic marking of script KP3X7QAB')).toBeNull());
    expect(calls.map((c) => c.call)).toEqual(['GET /jobs/failed', 'POST /jobs/4/run-again']);
  });
});
