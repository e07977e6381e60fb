import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Suspense } from 'react';
import { expect, it, vi } from 'vitest';
import { fetchLater, fetchLaterByTurns, later } from './later';

const Ruler = ({ length }: { length: number }) => <p>{length} cm</p>;

it('is drawn at once where it was fetched before, with what it brings along', async () => {
  const inner = vi.fn(() => Promise.resolve(Ruler));
  const Outer = later(() => {
    const Inner = later(inner);
    return Promise.resolve(() => <Inner length={3} />);
  });
  await fetchLater();
  render(
    <Suspense fallback="waiting">
      <Outer />
    </Suspense>,
  );
  // Nothing was awaited since.
  expect(screen.getByText('3 cm')).toBeVisible();
  expect(inner).toHaveBeenCalledTimes(1);
});

it('is fetched where it is first wanted, and again where it did not come', async () => {
  const load = vi.fn(() => Promise.resolve(Ruler));
  load.mockRejectedValueOnce(new Error('no network'));
  const Late = later(load);
  await fetchLater();
  const view = (
    <Suspense fallback="waiting">
      <Late length={5} />
    </Suspense>
  );
  render(view);
  expect(await screen.findByText('5 cm')).toBeVisible();
  expect(load).toHaveBeenCalledTimes(2);
});

it('by turns is fetched one after the other, each once its turn has come', async () => {
  const told: string[] = [];
  for (const name of ['first', 'second'])
    later(() => {
      told.push(name);
      return Promise.resolve(Ruler);
    });
  let turns = 0;
  await fetchLaterByTurns(() => {
    told.push(`turn ${++turns}`);
    return Promise.resolve();
  });
  // Those of the tests above had their turns before.
  expect(told.slice(-4)).toEqual([`turn ${turns - 1}`, 'first', `turn ${turns}`, 'second']);
});

it('says in its own place that it did not come, and is asked for again from there', async () => {
  vi.spyOn(console, 'error').mockImplementation(() => undefined);
  const load = vi.fn((): Promise<typeof Ruler> => Promise.reject(new Error('no network')));
  const Late = later(load);
  render(
    <>
      <p>The rest</p>
      <Suspense fallback="waiting">
        <Late length={7} />
      </Suspense>
    </>,
  );
  // Four times, without the waits in between.
  await vi.waitFor(() => {
    window.dispatchEvent(new Event('online'));
    expect(screen.getByRole('alert')).toHaveTextContent('This part of the page cannot be shown');
  });
  expect(load).toHaveBeenCalledTimes(4);
  expect(screen.getByText('The rest')).toBeVisible();
  load.mockResolvedValue(Ruler);
  await userEvent.click(screen.getByRole('button', { name: 'Show it again' }));
  expect(await screen.findByText('7 cm')).toBeVisible();
  vi.restoreAllMocks();
});
