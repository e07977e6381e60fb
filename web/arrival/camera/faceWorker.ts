/*
 * Finds faces in a worker with a model that ships with the application (BlazeFace, 256 × 256, Apache-2.0): decoding
 * of its outputs after Bazarevsky et al., “BlazeFace: Sub-millisecond Neural Face Detection on Mobile GPUs”, 2019.
 */
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import { loadGraphModel, type GraphModel } from '@tensorflow/tfjs-converter';
import { dispose, ready, setBackend, tensor4d, zeros, type Tensor } from '@tensorflow/tfjs-core';

export interface FaceBox {
  readonly score: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const SIDE = 256;
const LEAST_SCORE = 0.5;
const OVERLAP = 0.3;
const VALUES_PER_BOX = 16;

/** Centres (0..1) of the model's anchors: two a cell on a 16 × 16 grid, six on an 8 × 8 grid. */
const anchors = [
  { stride: 16, count: 2 },
  { stride: 32, count: 6 },
].flatMap(({ stride, count }) => {
  const grid = SIDE / stride;
  const centres: [number, number][] = [];
  for (let y = 0; y < grid; y++)
    for (let x = 0; x < grid; x++)
      for (let k = 0; k < count; k++) centres.push([(x + 0.5) / grid, (y + 0.5) / grid]);
  return centres;
});
const FINE_ANCHORS = (SIDE / 16) ** 2 * 2;

const canvas = new OffscreenCanvas(SIDE, SIDE);
const pen = canvas.getContext('2d', { willReadFrequently: true })!;

async function loadModel(): Promise<GraphModel> {
  setWasmPaths('/vendor/tf/');
  await setBackend('wasm');
  await ready();
  const model = await loadGraphModel('/vendor/blazeface/blazeface.json');
  const blank = zeros([1, SIDE, SIDE, 3]);
  dispose(model.execute(blank));
  blank.dispose();
  return model;
}

const model = loadModel();

/** The picture fitted into the model's square, as values −1..1. */
function inputOf(bitmap: ImageBitmap, left: number, top: number, scale: number): Tensor {
  pen.fillStyle = '#000';
  pen.fillRect(0, 0, SIDE, SIDE);
  pen.drawImage(bitmap, left, top, bitmap.width * scale, bitmap.height * scale);
  const rgba = pen.getImageData(0, 0, SIDE, SIDE).data;
  const values = new Float32Array(SIDE * SIDE * 3);
  for (let i = 0, j = 0; i < rgba.length; i += 4)
    for (let channel = 0; channel < 3; channel++) values[j++] = rgba[i + channel]! / 127.5 - 1;
  return tensor4d(values, [1, SIDE, SIDE, 3]);
}

const area = (box: FaceBox) => box.width * box.height;

function overlap(a: FaceBox, b: FaceBox): number {
  const width = Math.max(0, Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x));
  const height = Math.max(0, Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y));
  const shared = width * height;
  return shared / (area(a) + area(b) - shared);
}

/** Of boxes that overlap much, the likeliest is kept. */
function distinct(boxes: FaceBox[]): FaceBox[] {
  const kept: FaceBox[] = [];
  for (const box of boxes.sort((a, b) => b.score - a.score))
    if (kept.every((other) => overlap(box, other) < OVERLAP)) kept.push(box);
  return kept;
}

async function detect(bitmap: ImageBitmap): Promise<FaceBox[]> {
  const scale = SIDE / Math.max(bitmap.width, bitmap.height);
  const [left, top] = [(SIDE - bitmap.width * scale) / 2, (SIDE - bitmap.height * scale) / 2];
  const input = inputOf(bitmap, left, top, scale);
  const outputs = ((await model).execute(input) as Tensor[]).slice().sort((a, b) => a.size - b.size);
  const [coarseScores, fineScores, coarseBoxes, fineBoxes] = outputs.map((o) => o.dataSync());
  dispose([input, ...outputs]);
  const boxes: FaceBox[] = [];
  anchors.forEach(([cx, cy], i) => {
    const fine = i < FINE_ANCHORS;
    const k = fine ? i : i - FINE_ANCHORS;
    const score = 1 / (1 + Math.exp(-(fine ? fineScores! : coarseScores!)[k]!));
    if (score < LEAST_SCORE) return;
    const [dx, dy, w, h] = (fine ? fineBoxes! : coarseBoxes!).slice(
      k * VALUES_PER_BOX,
      k * VALUES_PER_BOX + 4,
    );
    const [x, y] = [dx! + cx * SIDE - w! / 2, dy! + cy * SIDE - h! / 2];
    boxes.push({ score, x: (x - left) / scale, y: (y - top) / scale, width: w! / scale, height: h! / scale });
  });
  return distinct(boxes);
}

self.onmessage = ({ data }: MessageEvent<{ id: number; bitmap: ImageBitmap }>) => {
  detect(data.bitmap)
    .then((boxes) => self.postMessage({ id: data.id, boxes }))
    .catch((error: unknown) => self.postMessage({ id: data.id, trouble: String(error) }))
    .finally(() => data.bitmap.close());
};
