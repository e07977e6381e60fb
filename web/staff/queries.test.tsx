import { render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { fakeServer, Refused } from '../testing/fakeServer';
import { StaffShell } from '../testing/StaffShell';
import { LIST_MS, useFetched } from './queries';

beforeEach(() => void vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

function Shown() {
  const [loaded] = useFetched<string>('/state', undefined, LIST_MS);
  return <p>{loaded.state === 'here' ? loaded.value : loaded.state === 'trouble' ? loaded.message : ''}</p>;
}

it('follows a state; one that was shown stays while the server is away, and goes when it is refused', async () => {
  const answers = ['first', 'second', null, new Refused(403, 'forbidden', 'Not yours any more.')];
  const calls = fakeServer({
    'GET /state': () => {
      const answer = answers[Math.min(calls.length - 1, 3)];
      if (answer === null) throw new TypeError('Failed to fetch');
      return answer;
    },
  });
  render(<Shown />, { wrapper: StaffShell });
  expect(await screen.findByText('first')).toBeVisible();
  await vi.advanceTimersByTimeAsync(LIST_MS);
  expect(await screen.findByText('second')).toBeVisible();
  await vi.advanceTimersByTimeAsync(LIST_MS);
  await vi.waitFor(() => expect(calls.length).toBe(3));
  expect(screen.getByText('second')).toBeVisible();
  await vi.advanceTimersByTimeAsync(LIST_MS);
  expect(await screen.findByText('Not yours any more.')).toBeVisible();
});
