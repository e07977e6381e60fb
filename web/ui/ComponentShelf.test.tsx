import { render, screen } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { ComponentShelf, useReady } from './ComponentShelf';

const Ruler = ({ length }: { length: number }) => <p>{length} cm</p>;

it('asks for a component until it comes, at once where the connection is back', async () => {
  const fetch = vi.fn(() => Promise.resolve(Ruler));
  fetch.mockRejectedValueOnce(new Error('no network'));
  const shelf = new ComponentShelf<'ruler', { length: number }>(fetch);
  function Place() {
    return useReady(shelf, 'ruler') ? shelf.draw('ruler', { length: 3 }) : <p>not here yet</p>;
  }
  render(<Place />);
  expect(screen.getByText('not here yet')).toBeVisible();
  await vi.waitFor(() => expect(fetch).toHaveBeenCalledTimes(1));
  await vi.waitFor(() => {
    window.dispatchEvent(new Event('online'));
    expect(fetch).toHaveBeenCalledTimes(2);
  });
  expect(await screen.findByText('3 cm')).toBeVisible();
});
