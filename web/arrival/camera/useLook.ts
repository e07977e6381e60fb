import { useEffect, useState, type RefObject } from 'react';
import { troublesOfPicture, type CameraFacts, type CameraTrouble } from '../../../core/arrival/checks';
import { meanDifference, measurePicture } from '../../../core/arrival/pictureMeasures';
import { FaceFinder } from './faceFinder';
import type { FaceBox } from './faceWorker';

export interface Look {
  readonly facts: CameraFacts;
  readonly troubles: readonly CameraTrouble[];
}

const EVERY_MS = 600;
const [WIDTH, HEIGHT] = [160, 120];

/** Is the face inside the middle of the picture, and neither tiny nor filling it? */
function insideFrame(box: FaceBox, width: number, height: number): boolean {
  const [x, y] = [(box.x + box.width / 2) / width, (box.y + box.height / 2) / height];
  const size = box.height / height;
  return x > 0.25 && x < 0.75 && y > 0.2 && y < 0.8 && size > 0.12 && size < 0.9;
}

const TRIES = 3;
const MOVES = 0.05;
/** Some five seconds: a camera may stand still for a moment on a busy device. */
const STILL_LOOKS = 8;

/** Counts looks at a picture that does not change: a live camera's is never quite the same twice. */
class Stillness {
  private before: Uint8ClampedArray | null = null;
  private looks = 0;

  after(pixels: Uint8ClampedArray): boolean {
    const moved = this.before === null || meanDifference(this.before, pixels) > MOVES;
    this.looks = moved ? 0 : this.looks + 1;
    this.before = pixels;
    return this.looks >= STILL_LOOKS;
  }
}

async function look(
  video: HTMLVideoElement,
  pen: CanvasRenderingContext2D,
  finder: FaceFinder,
  stillness: Stillness,
): Promise<Look> {
  pen.drawImage(video, 0, 0, WIDTH, HEIGHT);
  const pixels = pen.getImageData(0, 0, WIDTH, HEIGHT).data;
  const { light, sharpness, flatShare } = measurePicture(pixels, WIDTH, HEIGHT);
  const still = stillness.after(pixels);
  const boxes = await finder.find(await createImageBitmap(video));
  const only = boxes.length === 1 ? boxes[0] : undefined;
  const inside = only !== undefined && insideFrame(only, video.videoWidth, video.videoHeight);
  const facts = { light, sharpness, flatShare, faces: boxes.length, insideFrame: inside, still };
  return { facts, troubles: troublesOfPicture(facts) };
}

/** Looks at the live picture again and again: light, sharpness, and the faces found by the model in its worker. */
export function useLook(
  video: RefObject<HTMLVideoElement | null>,
  stream: MediaStream | null,
): [Look | null, string | null] {
  const [seen, setSeen] = useState<Look | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    if (!stream) return;
    let finder = new FaceFinder();
    let failures = 0;
    const stillness = new Stillness();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [WIDTH, HEIGHT];
    const pen = canvas.getContext('2d', { willReadFrequently: true })!;
    let timer: ReturnType<typeof setTimeout>;
    let current = true;
    const again = async () => {
      const element = video.current;
      try {
        if (element && element.readyState >= element.HAVE_CURRENT_DATA) {
          const next = await look(element, pen, finder, stillness);
          if (current) {
            setSeen(next);
            setTrouble(null);
            failures = 0;
          }
        }
      } catch (error) {
        // The worker may have been cut off while it was loading: a fresh one, before anybody is bothered.
        finder.end();
        if (current) finder = new FaceFinder();
        if (current && ++failures >= TRIES) setTrouble(String(error));
      }
      if (current) timer = setTimeout(() => void again(), EVERY_MS);
    };
    void again();
    return () => {
      current = false;
      clearTimeout(timer);
      finder.end();
      setSeen(null);
    };
  }, [stream, video]);
  return [seen, trouble];
}
