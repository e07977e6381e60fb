import { render, screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { PageHeading } from './PageHeading';

it('names the window, and has the focus after a change of view, not on the first page', () => {
  const { rerender } = render(
    <PageHeading key="a" context="Seed technician">
      Are these your <b>details</b>?
    </PageHeading>,
  );
  expect(document.title).toBe('Are these your details? – Seed technician – Clear Sitting');
  const first = document.activeElement;
  rerender(<PageHeading key="b">Rules</PageHeading>);
  expect(document.title).toBe('Rules – Clear Sitting');
  expect(screen.getByRole('heading', { name: 'Rules' })).toHaveFocus();
  expect(first).not.toBe(screen.getByRole('heading', { name: 'Rules' }));
  rerender(
    <PageHeading key="b" title="Cover">
      Rules
    </PageHeading>,
  );
  expect(document.title).toBe('Cover – Clear Sitting');
});
