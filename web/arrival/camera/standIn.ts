/*
 * The stand-in camera: a drawn person in a drawn room, who can leave, be joined by a second, cover the lens, freeze or
 * sit in the dark; for the demo and for tests. No photograph is involved; the face
 * model takes the drawing for a face.
 */
export interface Scene {
  readonly faces: number;
  /** Seconds, for small movements. */
  readonly time: number;
  readonly width: number;
  readonly height: number;
}

type Pen = CanvasRenderingContext2D;

const SKIN = { lit: '#e9bd9c', mid: '#c8906c', dark: '#8d5a40', hair: '#3a2618' };

function room(pen: Pen, w: number, h: number): void {
  const wall = pen.createLinearGradient(0, 0, w, h);
  wall.addColorStop(0, '#b9c4c9');
  wall.addColorStop(1, '#8b979c');
  pen.fillStyle = wall;
  pen.fillRect(0, 0, w, h);
  pen.fillStyle = '#6f5a48';
  pen.fillRect(w * 0.03, h * 0.1, w * 0.17, h * 0.55);
  const spines = ['#7a3b34', '#35566e', '#c9b26a', '#45614a', '#8a8a92'];
  for (let shelf = 0; shelf < 3; shelf++)
    for (let book = 0; book < 5; book++) {
      pen.fillStyle = spines[(shelf * 2 + book) % 5]!;
      pen.fillRect(w * (0.04 + book * 0.03), h * (0.13 + shelf * 0.18), w * 0.024, h * 0.13);
    }
  pen.fillStyle = '#dfe9ee';
  pen.fillRect(w * 0.78, h * 0.08, w * 0.18, h * 0.4);
}

/** A blurred spot of light or shade. */
function glow(pen: Pen, [x, y, a, b]: readonly number[], colour: string, alpha: number): void {
  pen.save();
  pen.translate(x!, y!);
  pen.scale(a!, b!);
  const spot = pen.createRadialGradient(0, 0, 0, 0, 0, 1);
  spot.addColorStop(0, colour);
  spot.addColorStop(1, `${colour}00`);
  pen.globalAlpha = alpha;
  pen.fillStyle = spot;
  pen.beginPath();
  pen.arc(0, 0, 1, 0, 7);
  pen.fill();
  pen.restore();
}

function shape(pen: Pen, fill: string | CanvasGradient, path: () => void): void {
  pen.beginPath();
  path();
  pen.fillStyle = fill;
  pen.fill();
}

function oval(pen: Pen, fill: string, [x, y, a, b]: readonly number[]): void {
  shape(pen, fill, () => pen.ellipse(x!, y!, a!, b!, 0, 0, 7));
}

function eye(pen: Pen, side: -1 | 1, open: number): void {
  const x = side * 0.32;
  glow(pen, [x, -0.1, 0.26, 0.2], SKIN.dark, 0.75);
  oval(pen, '#f3eee8', [x, -0.08, 0.155, 0.08 * open]);
  oval(pen, '#4a3423', [x, -0.08, 0.08, 0.078 * open]);
  oval(pen, '#0c0807', [x, -0.08, 0.04, 0.04 * open]);
  oval(pen, '#ffffff', [x - 0.025, -0.11, 0.018, 0.018 * open]);
  pen.strokeStyle = '#1d120d';
  pen.lineWidth = 0.04;
  pen.beginPath();
  pen.moveTo(x - 0.165, -0.07);
  pen.quadraticCurveTo(x, -0.07 - 0.12 * open, x + 0.165, -0.07);
  pen.stroke();
  pen.strokeStyle = SKIN.hair;
  pen.lineWidth = 0.085;
  pen.beginPath();
  pen.moveTo(side * 0.14, -0.27);
  pen.quadraticCurveTo(x, -0.37, side * 0.52, -0.26);
  pen.stroke();
}

function noseAndMouth(pen: Pen): void {
  const { lit, dark } = SKIN;
  glow(pen, [-0.09, 0.1, 0.07, 0.3], dark, 0.35);
  glow(pen, [0.1, 0.12, 0.09, 0.3], dark, 0.5);
  glow(pen, [0, 0.05, 0.06, 0.3], lit, 0.9);
  glow(pen, [0, 0.37, 0.22, 0.07], dark, 0.8);
  oval(pen, dark, [-0.08, 0.345, 0.045, 0.025]);
  oval(pen, dark, [0.08, 0.345, 0.045, 0.025]);
  glow(pen, [0, 0.63, 0.36, 0.15], dark, 0.35);
  shape(pen, '#a4544c', () => {
    pen.moveTo(-0.28, 0.6);
    pen.quadraticCurveTo(-0.1, 0.52, 0, 0.56);
    pen.quadraticCurveTo(0.1, 0.52, 0.28, 0.6);
    pen.quadraticCurveTo(0, 0.79, -0.28, 0.6);
  });
  glow(pen, [0, 0.8, 0.2, 0.06], dark, 0.5);
}

function person(pen: Pen, x: number, y: number, size: number, time: number): void {
  const { lit, mid, dark, hair } = SKIN;
  pen.save();
  pen.translate(x, y);
  pen.rotate(Math.sin(time * 0.6) * 0.04);
  pen.scale(size, size);
  shape(pen, '#38485e', () => {
    pen.moveTo(-2.1, 3.4);
    pen.bezierCurveTo(-2, 1.7, -1, 1.5, -0.45, 1.25);
    pen.lineTo(0.45, 1.25);
    pen.bezierCurveTo(1, 1.5, 2, 1.7, 2.1, 3.4);
  });
  shape(pen, mid, () => {
    pen.moveTo(-0.4, 0.6);
    pen.lineTo(-0.45, 1.3);
    pen.quadraticCurveTo(0, 1.75, 0.45, 1.3);
    pen.lineTo(0.4, 0.6);
  });
  glow(pen, [0, 0.95, 0.55, 0.35], dark, 0.8);
  oval(pen, hair, [0, -0.28, 0.88, 0.95]);
  oval(pen, mid, [-0.76, 0.05, 0.12, 0.22]);
  oval(pen, mid, [0.76, 0.05, 0.12, 0.22]);
  const skin = pen.createRadialGradient(-0.2, -0.25, 0.1, 0, 0, 1.15);
  skin.addColorStop(0, lit);
  skin.addColorStop(0.6, mid);
  skin.addColorStop(1, dark);
  shape(pen, skin, () => {
    pen.moveTo(-0.74, -0.25);
    pen.bezierCurveTo(-0.76, -1.2, 0.76, -1.2, 0.74, -0.25);
    pen.bezierCurveTo(0.74, 0.4, 0.5, 1, 0, 1.05);
    pen.bezierCurveTo(-0.5, 1, -0.74, 0.4, -0.74, -0.25);
  });
  glow(pen, [-0.42, 0.35, 0.3, 0.28], lit, 0.5);
  glow(pen, [0.42, 0.35, 0.3, 0.28], lit, 0.35);
  glow(pen, [0, -0.55, 0.45, 0.25], lit, 0.5);
  shape(pen, hair, () => {
    pen.moveTo(-0.8, -0.1);
    pen.bezierCurveTo(-0.95, -1.35, 0.95, -1.35, 0.8, -0.1);
    pen.bezierCurveTo(0.72, -0.5, 0.55, -0.66, 0.2, -0.7);
    pen.bezierCurveTo(-0.2, -0.72, -0.6, -0.62, -0.8, -0.1);
  });
  const open = time % 4 < 0.15 ? 0.15 : 1;
  eye(pen, -1, open);
  eye(pen, 1, open);
  noseAndMouth(pen);
  pen.restore();
}

export function drawScene(pen: Pen, { faces, time, width: w, height: h }: Scene): void {
  room(pen, w, h);
  const places = faces === 1 ? [0.5] : faces === 2 ? [0.3, 0.7] : [];
  const size = faces === 1 ? 0.3 : 0.24;
  for (const [i, x] of places.entries())
    person(
      pen,
      w * x + Math.sin(time * 0.7 + i) * w * 0.012,
      h * 0.47 + Math.sin(time * 0.9) * h * 0.012,
      h * size,
      time + i,
    );
}

const FRAME_MS = 100;

/** What the drawn person can do. */
export const standInScenes = ['person', 'nobody', 'two', 'covered', 'dark', 'frozen'] as const;
export type StandInScene = (typeof standInScenes)[number];

const FACES: Partial<Record<StandInScene, number>> = { nobody: 0, two: 2 };

function drawAs(pen: Pen, scene: StandInScene, seconds: number): void {
  const { width, height } = pen.canvas;
  const time = scene === 'frozen' ? 1 : seconds;
  drawScene(pen, { faces: FACES[scene] ?? 1, time, width, height });
  if (scene === 'dark' || scene === 'covered') {
    pen.fillStyle = `rgb(0 0 0 / ${scene === 'dark' ? 0.8 : 0.97})`;
    pen.fillRect(0, 0, width, height);
  }
}

/** A media stream of the drawn person. */
export function standInStream(scene: StandInScene): MediaStream {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [640, 480];
  const pen = canvas.getContext('2d')!;
  const from = performance.now();
  const draw = () => drawAs(pen, scene, (performance.now() - from) / 1000);
  draw();
  const stream = canvas.captureStream(1000 / FRAME_MS);
  const timer = setInterval(() => (stream.active ? draw() : clearInterval(timer)), FRAME_MS);
  return stream;
}
