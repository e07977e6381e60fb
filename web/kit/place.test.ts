import { describe, expect, it } from 'vitest';
import { angleTo, CARD_MM, centimetres, NOMINAL_PX_PER_MM, readAngle } from './measuring';
import { aside, moved, onPage, type Place } from './place';

const PAGE = { width: 1280, height: 800 };
const LEAST = { width: 200, height: 100 };
const panel: Place = { x: 500, y: 300, width: 300, height: 200 };

describe('a panel', () => {
  it('is found again on a smaller page, with enough of it to take hold of', () => {
    const phone = { width: 360, height: 740 };
    expect(onPage({ ...panel, x: 1200 }, phone, LEAST)).toEqual({ x: 300, y: 300, width: 300, height: 200 });
    expect(onPage({ ...panel, width: 4000, height: 5 }, PAGE, LEAST)).toMatchObject({
      width: 1264,
      height: 100,
    });
  });

  it('moves by arrows, and changes its size with Shift', () => {
    expect(moved(panel, { key: 'ArrowLeft', shiftKey: false })).toEqual({ ...panel, x: 480 });
    expect(moved(panel, { key: 'ArrowDown', shiftKey: true })).toEqual({ ...panel, height: 220 });
    expect(moved(panel, { key: 'a', shiftKey: false })).toBeNull();
  });

  it.each<[string, Place, Partial<Place>]>([
    ['stays where it covers nothing', { x: 0, y: 0, width: 100, height: 40 }, {}],
    // The field reaches from 320 to 360: below it is nearest, 8 pixels apart.
    ['steps below', { x: 450, y: 280, width: 400, height: 40 }, { y: 328 }],
    ['steps above', { x: 450, y: 470, width: 400, height: 40 }, { y: 262 }],
    ['steps to the side', { x: 200, y: 100, width: 320, height: 600 }, { x: 528 }],
  ])('%s', (_, field, change) => expect(aside(panel, field, PAGE)).toEqual({ ...panel, ...change }));

  it('stays on the page even where it cannot but cover the field', () => {
    const { x, y } = aside(panel, { x: 0, y: 0, ...PAGE }, PAGE);
    expect(x >= 0 && y >= 0 && x <= 980 && y <= 600).toBe(true);
  });
});

describe('measuring', () => {
  it('reads lengths by the calibrated screen', () => {
    // 96 pixels are an inch: 2.54 cm.
    expect(centimetres(96, NOMINAL_PX_PER_MM)).toBe(2.5);
    // A card that fills 428 pixels makes 5 pixels a millimetre.
    expect(centimetres(200, 428 / CARD_MM.width)).toBe(4);
  });

  it('reads angles from 0 to 180 degrees, to the half', () => {
    expect(angleTo({ x: 0, y: 0 }, { x: 0, y: 10 })).toBe(90);
    expect(angleTo({ x: 0, y: 0 }, { x: 10, y: -10 })).toBe(315);
    expect([37.3, 37.2, 190, 360, 180].map(readAngle)).toEqual([37.5, 37, 170, 0, 180]);
  });
});
