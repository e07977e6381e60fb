export interface PictureMeasures {
  /** Mean brightness, 0..255. */
  readonly light: number;
  /** Variance of the Laplacian over the variance of the picture: how crisp its edges are, apart from its contrast. */
  readonly sharpness: number;
  /** Share (0..1) of an 8 × 6 grid of blocks that hold next to no detail. */
  readonly flatShare: number;
}

const variance = (sum: number, squares: number, n: number) => squares / n - (sum / n) ** 2;

function greyOf(rgba: Uint8ClampedArray, n: number): Uint8Array {
  const grey = new Uint8Array(n);
  // BT.601 luma in 8-bit arithmetic
  for (let i = 0, j = 0; i < n; i++, j += 4)
    grey[i] = (rgba[j]! * 77 + rgba[j + 1]! * 150 + rgba[j + 2]! * 29) >> 8;
  return grey;
}

function spreadOf(
  grey: Uint8Array,
  pick: (visit: (i: number) => void) => void,
  value = (i: number) => grey[i]!,
) {
  let [sum, squares, n] = [0, 0, 0];
  pick((i) => {
    const v = value(i);
    sum += v;
    squares += v * v;
    n++;
  });
  return { mean: sum / n, variance: variance(sum, squares, n) };
}

const box =
  (x0: number, y0: number, x1: number, y1: number, width: number) => (visit: (i: number) => void) => {
    for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) visit(y * width + x);
  };

const FLAT_VARIANCE = 16;

/** Measures RGBA pixels. Sharpness after Pech-Pacheco et al., “Diatom autofocusing in brightfield microscopy”, 2000. */
export function measurePicture(rgba: Uint8ClampedArray, width: number, height: number): PictureMeasures {
  const grey = greyOf(rgba, width * height);
  const whole = spreadOf(grey, box(0, 0, width, height, width));
  const laplacian = (i: number) =>
    grey[i - 1]! + grey[i + 1]! + grey[i - width]! + grey[i + width]! - 4 * grey[i]!;
  const edges = spreadOf(grey, box(1, 1, width - 1, height - 1, width), laplacian);
  const [bw, bh] = [Math.floor(width / 8), Math.floor(height / 6)];
  let flat = 0;
  for (let by = 0; by < 6; by++)
    for (let bx = 0; bx < 8; bx++) {
      const block = spreadOf(grey, box(bx * bw, by * bh, (bx + 1) * bw, (by + 1) * bh, width));
      if (block.variance < FLAT_VARIANCE) flat++;
    }
  return { light: whole.mean, sharpness: edges.variance / Math.max(whole.variance, 1), flatShare: flat / 48 };
}

/** Mean difference of two RGBA pictures of the same size, 0..255; a live camera is never quite the same twice. */
export function meanDifference(a: Uint8ClampedArray, b: Uint8ClampedArray): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) if (i % 4 !== 3) sum += Math.abs(a[i]! - b[i]!);
  return sum / ((a.length / 4) * 3);
}
