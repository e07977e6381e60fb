import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';
import { TypedPlace } from './TypedPlace';

const AXES = [
  { from: '0', to: '10', step: '1', snaps: 1, label: '' },
  { from: '-1', to: '1', step: '1', snaps: 2, label: '' },
] as const;

it('names and marks the field that is wrong, goes to it, and keeps what was typed', async () => {
  const set = vi.fn();
  render(<TypedPlace axes={AXES} labels={['Across', 'Up']} locale="en" onSet={set} />);
  const [across, up] = [screen.getByLabelText('Across'), screen.getByLabelText('Up')];
  await userEvent.type(across, '4');
  await userEvent.type(up, '0.3{Enter}');
  expect(up).toHaveAccessibleDescription('Up: 0.3 is not a point of the grid. The step is 0.5.');
  expect(up).toBeInvalid();
  expect(up).toHaveFocus();
  expect(across).toBeValid();
  await userEvent.clear(up);
  await userEvent.clear(across);
  await userEvent.type(across, '12{Enter}');
  expect(across).toHaveAccessibleDescription('Across: 12 lies outside the axis. It goes from 0 to 10.');
  expect(up).toHaveAccessibleDescription('Up: type a number.');
  expect(across).toHaveFocus();
  expect(set).not.toHaveBeenCalled();
  await userEvent.clear(across);
  await userEvent.type(across, '3');
  await userEvent.type(up, '0.5{Enter}');
  expect(set).toHaveBeenCalledWith(['3', '0.5']);
  expect(up).toBeValid();
  expect(up).toHaveValue('');
});
