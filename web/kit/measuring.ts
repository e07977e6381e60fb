/** A card after ISO/IEC 7810 ID-1, the size of bank and identity cards, in millimetres. */
export const CARD_MM = { width: 85.6, height: 53.98 } as const;
/** CSS takes an inch for 96 pixels; what a screen really shows is found by calibration. */
export const NOMINAL_PX_PER_MM = 96 / 25.4;

/** Whole turns are taken out: an angle from 0 up to, not including, 360 degrees. */
export const turned = (degrees: number): number => ((degrees % 360) + 360) % 360;

/** The angle of a place seen from another, in degrees, clockwise from the right. */
export const angleTo = (from: { x: number; y: number }, to: { x: number; y: number }): number =>
  turned((Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI);

/** What a protractor reads: the angle of its arm against its base line, 0 to 180 degrees, to the nearest half. */
export function readAngle(arm: number): number {
  const whole = turned(arm);
  return Math.round(2 * (whole > 180 ? 360 - whole : whole)) / 2;
}

/** A length on the screen in centimetres, to the nearest millimetre. */
export const centimetres = (px: number, pxPerMm: number): number => Math.round(px / pxPerMm) / 10;
