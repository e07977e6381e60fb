import { expect, it } from 'vitest';
import { instantOf, wallTimeAt } from './wallTime';

it.each([
  // Oslo is an hour ahead of UTC in winter, two in summer.
  ['2026-11-24T09:00', 'Europe/Oslo', '2026-11-24T08:00:00Z'],
  ['2026-07-01T09:00', 'Europe/Oslo', '2026-07-01T07:00:00Z'],
  ['2026-11-24T09:00', 'America/Lima', '2026-11-24T14:00:00Z'],
  ['2026-11-24T09:00', 'Asia/Kathmandu', '2026-11-24T03:15:00Z'],
  // On 25 October 2026 the hour from two to three comes twice in Oslo: the first one is in summer time.
  ['2026-10-25T02:30', 'Europe/Oslo', '2026-10-25T00:30:00Z'],
  // On 29 March 2026 it is left out: half past two is half past three in summer time.
  ['2026-03-29T02:30', 'Europe/Oslo', '2026-03-29T01:30:00Z'],
  ['2026-03-29T03:00', 'Europe/Oslo', '2026-03-29T01:00:00Z'],
])('%s in %s is %s', (wall, zone, utc) => {
  expect(new Date(instantOf(wall, zone)!).toISOString()).toBe(new Date(utc).toISOString());
});

it('writes what it reads, and reads nothing else', () => {
  for (let day = 0; day < 365; day++) {
    const at = Date.UTC(2026, 0, 1, 12, 30) + day * 86_400_000;
    expect(instantOf(wallTimeAt(at, 'Europe/Oslo'), 'Europe/Oslo')).toBe(at);
  }
  for (const wrong of ['', 'tomorrow', '2026-13-01T09:00', '2026-11-24 09:00'])
    expect(instantOf(wrong, 'UTC')).toBeNull();
});
