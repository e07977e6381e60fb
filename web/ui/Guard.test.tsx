import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Guard, pageInstead } from './Guard';

// React says in the console what a guard has caught.
beforeEach(() => vi.spyOn(console, 'error').mockImplementation(() => undefined));
afterEach(() => vi.restoreAllMocks());

let broken = true;
function Part() {
  if (broken) throw new Error('cannot be drawn');
  return <p>The part</p>;
}

it('keeps a fault from the rest of the page, and shows the part again once it can be drawn', async () => {
  broken = true;
  render(
    <>
      <Guard>
        <Part />
      </Guard>
      <p>The rest</p>
    </>,
  );
  expect(screen.getByText('The rest')).toBeVisible();
  expect(screen.getByRole('alert')).toHaveTextContent('Your saved answers are safe');
  const again = screen.getByRole('button', { name: 'Show it again' });
  await userEvent.click(again);
  expect(screen.queryByText('The part')).toBeNull();
  broken = false;
  await userEvent.click(screen.getByRole('button', { name: 'Show it again' }));
  expect(screen.getByText('The part')).toBeVisible();
});

it('tries what it holds by itself where that is something else', () => {
  broken = true;
  const page = (address: string) => (
    <Guard holds={address} instead={pageInstead}>
      <Part />
    </Guard>
  );
  const { rerender } = render(page('/one'));
  expect(screen.getByRole('heading', { name: 'This page cannot be shown' })).toBeVisible();
  broken = false;
  rerender(page('/one'));
  expect(screen.queryByText('The part')).toBeNull();
  rerender(page('/two'));
  expect(screen.getByText('The part')).toBeVisible();
});
