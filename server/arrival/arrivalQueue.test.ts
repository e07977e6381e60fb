import { beforeEach, describe, expect, it } from 'vitest';
import { ArrivalQueue } from './arrivalQueue';

let hasNoTime = false;
let queue: ArrivalQueue;
beforeEach(() => {
  hasNoTime = false;
  queue = new ArrivalQueue(() => hasNoTime);
});
/** Asks for everybody of a range, and gives those who may come in. */
const asks = (from: number, to: number, now: number) =>
  Array.from({ length: to - from }, (_, i) => from + i).filter((one) => queue.ask(`l${one}`, now) === null);

describe('the queue of those who arrive', () => {
  it('admits a full room at once, and again everybody who was admitted before', () => {
    expect(asks(0, 150, 0)).toHaveLength(150);
    expect(queue.ask('l7', 20)).toBeNull();
    // Places count from 1; 150 are let in a second.
    expect(queue.ask('l150', 20)).toEqual({ place: 1, seconds: 1 });
    expect(asks(151, 451, 20)).toEqual([]);
    expect(queue.ask('l450', 30)).toEqual({ place: 301, seconds: 3 });
  });

  it('lets people in by their order as time goes, and slower while the server is busy', () => {
    asks(0, 350, 0);
    // A quarter of a second at 150 a second: 37 people.
    expect(asks(150, 350, 250)).toEqual(Array.from({ length: 37 }, (_, i) => 150 + i));
    hasNoTime = true;
    for (let now = 500; now <= 20_000; now += 250) queue.ask('l349', now);
    const before = queue.ask('l349', 20_000);
    expect(before).toBeNull();
    // Five a second by then, and no fewer: somebody far behind is told so.
    asks(1000, 1200, 20_000);
    const told = queue.ask('l1199', 20_250)!;
    expect(told.seconds).toBe(Math.ceil(told.place / 5));
    expect(queue.ask('l1199', 80_000)).toBeNull();
  });

  it('does not wait for those who have gone away', () => {
    asks(0, 150, 0);
    asks(200, 800, 0);
    hasNoTime = true;
    // Only the last one asks on: after two minutes nobody stands before them.
    for (let now = 250; now <= 122_000; now += 1000) queue.ask('l799', now);
    expect(queue.ask('l799', 122_000)).toBeNull();
  });
});
