import { expect, it } from 'vitest';
import { roundEstimate, unknown } from './estimate';

it('an estimate is rounded with its interval, to the step of its unit', () => {
  expect(roundEstimate({ n: 7, value: 0.123456, interval: [-0.98765, 0.5] })).toEqual({
    n: 7,
    value: 0.12,
    interval: [-0.99, 0.5],
  });
  expect(roundEstimate({ n: 3, value: 33.3333, interval: null }, 1)).toEqual({
    n: 3,
    value: 33,
    interval: null,
  });
  expect(roundEstimate(unknown(1, 'too few'))).toEqual(unknown(1, 'too few'));
});
