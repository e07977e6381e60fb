import sharp from 'sharp';
import type { Random } from '../../core/random';

/* Pages as somebody would have written them by hand and photographed: strokes on ruled paper, drawn by a program. */

type Stroke = readonly (readonly [number, number])[];

const arc = (cx: number, cy: number, rx: number, ry: number, from: number, to: number): Stroke =>
  Array.from({ length: 13 }, (_, i) => {
    const angle = ((from + ((to - from) * i) / 12) * Math.PI) / 180;
    return [cx + rx * Math.cos(angle), cy + ry * Math.sin(angle)];
  });

/** Signs in a box of 1 by 1.6, baseline at 1.6. */
const SIGNS: Readonly<Record<string, readonly Stroke[]>> = {
  '0': [arc(0.5, 0.8, 0.42, 0.78, -90, 270)],
  '1': [
    [
      [0.25, 0.35],
      [0.55, 0.05],
      [0.55, 1.6],
    ],
  ],
  '2': [[...arc(0.5, 0.45, 0.4, 0.42, 190, 380), [0.1, 1.55], [0.95, 1.55]]],
  '3': [[...arc(0.45, 0.42, 0.4, 0.38, 200, 440)], [...arc(0.45, 1.16, 0.45, 0.42, -80, 160)]],
  '4': [
    [
      [0.7, 1.6],
      [0.7, 0.05],
      [0.05, 1.05],
      [0.98, 1.05],
    ],
  ],
  '5': [
    [
      [0.9, 0.08],
      [0.2, 0.08],
      [0.15, 0.7],
    ],
    [...arc(0.45, 1.08, 0.45, 0.48, -120, 150)],
  ],
  '6': [
    [
      [0.8, 0.05],
      [0.3, 0.6],
      [0.1, 1.1],
    ],
    [...arc(0.5, 1.15, 0.4, 0.43, 0, 360)],
  ],
  '8': [arc(0.5, 0.42, 0.33, 0.37, 0, 360), arc(0.5, 1.18, 0.43, 0.41, 0, 360)],
  ':': [
    arc(0.5, 0.35, 0.06, 0.06, 0, 360),
    arc(0.5, 1.2, 0.06, 0.06, 0, 360),
    [
      [0.1, 0.8],
      [0.9, 0.8],
    ],
  ],
  '=': [
    [
      [0.1, 0.65],
      [0.95, 0.6],
    ],
    [
      [0.1, 1.05],
      [0.95, 1],
    ],
  ],
  '.': [arc(0.2, 1.5, 0.06, 0.06, 0, 360)],
  '-': [
    [
      [0.1, 0.85],
      [0.9, 0.82],
    ],
  ],
  x: [
    [
      [0.15, 0.55],
      [0.85, 1.2],
    ],
    [
      [0.85, 0.55],
      [0.15, 1.2],
    ],
  ],
  ' ': [],
};

const [WIDTH, HEIGHT] = [900, 640];

function line(text: string, at: { x: number; y: number; size: number }, random: Random): string {
  const wobble = () => (random() - 0.5) * 0.09;
  return [...text]
    .flatMap((sign, i) =>
      (SIGNS[sign] ?? []).map((stroke) => {
        const points = stroke.map(([x, y]) => {
          const [px, py] = [at.x + (i * 1.25 + x + wobble()) * at.size, at.y + (y + wobble()) * at.size];
          return `${px.toFixed(1)},${py.toFixed(1)}`;
        });
        return `<polyline points="${points.join(' ')}"/>`;
      }),
    )
    .join('');
}

/** A photograph of these lines of working, as JPEG. */
export async function drawPage(lines: readonly string[], random: Random): Promise<Buffer> {
  const size = 26 + random() * 10;
  const rows = lines
    .map((text, i) => line(text, { x: 70 + random() * 60, y: 60 + i * size * 2.7, size }, random))
    .join('');
  const ruled = Array.from(
    { length: 20 },
    (_, i) => `<path d="M0 ${40 + i * 32}H${WIDTH}" stroke="#c5d3e2"/>`,
  ).join('');
  const tint = 244 + Math.floor(random() * 8);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}">
    <rect width="100%" height="100%" fill="rgb(${tint},${tint - 4},${tint - 14})"/>${ruled}
    <g fill="none" stroke="#1f2f6b" stroke-width="${(3 + random() * 1.5).toFixed(1)}" stroke-linecap="round" stroke-linejoin="round"
      transform="rotate(${((random() - 0.5) * 4).toFixed(2)} 450 320)">${rows}</g></svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 72 }).toBuffer();
}

/** Working for “How many to sow”, by the level of the working and whether the figure is right. */
export const WORKINGS: readonly (readonly (readonly string[])[])[] = [
  [['340'], ['340 x 200 = 68000']],
  [['136 : 200 = 0.68', '340 : 0.68 = 500'], ['340 : 0.8 = 425']],
  [
    ['340 : 0.8 = 425', '136 : 200 = 0.68', '425 : 0.68 = 652'],
    ['340 x 1.2 = 408', '136 : 200 = 0.68', '408 : 0.68 = 600'],
  ],
  [
    ['340 : 0.8 = 425', '136 : 200 = 0.68', '425 : 0.68 = 625'],
    ['136 : 200 = 0.68', '1 - 0.2 = 0.8', '0.68 x 0.8 = 0.544', '340 : 0.544 = 625'],
  ],
];
