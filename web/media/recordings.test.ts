import { beforeEach, expect, it, vi } from 'vitest';
import type { AudioNode } from '../../core/documents/document';
import { noFiles, previewFiles } from './fileSource';
import { Recordings } from './recordings';

/** A recording that plays as the test says. */
class FakeAudio extends EventTarget {
  static last: FakeAudio;
  static broken = false;
  currentTime = 0;
  volume = 1;
  ended = false;
  playing = false;
  muted = false;
  readonly src: string;
  constructor(src: string) {
    super();
    this.src = src;
    FakeAudio.last = this;
  }
  play(): Promise<void> {
    if (FakeAudio.broken) return Promise.reject(new DOMException('', 'NotAllowedError'));
    this.playing = true;
    return Promise.resolve();
  }
  pause(): void {
    this.playing = false;
    this.dispatchEvent(new Event('pause'));
  }
  removeAttribute(): void {}
  to(seconds: number): void {
    this.currentTime = seconds;
    this.dispatchEvent(new Event('timeupdate'));
  }
  finish(): void {
    this.ended = true;
    this.dispatchEvent(new Event('ended'));
  }
}

const node = (more: Partial<AudioNode> = {}): AudioNode => ({
  type: 'audio',
  file: 'f',
  title: 'Talk',
  seconds: 10,
  plays: 2,
  pausing: false,
  transcript: null,
  ...more,
});
let recordings: Recordings;
const state = () => recordings.store.getState();

beforeEach(() => {
  vi.stubGlobal('Audio', FakeAudio);
  FakeAudio.broken = false;
  recordings = new Recordings(previewFiles({ f: 'blob:f', g: 'blob:g' }));
});

it('plays to its end, one at a time, and counts', async () => {
  await recordings.start(node());
  FakeAudio.last.to(4);
  expect(state().sounding).toEqual({ file: 'f', state: 'playing', atSeconds: 4 });
  // Tried without sound first, it is heard now.
  expect(FakeAudio.last.muted).toBe(false);
  await recordings.start(node({ file: 'g' }));
  expect(FakeAudio.last.src).toBe('blob:f');
  FakeAudio.last.finish();
  expect(state().sounding).toBeNull();
  expect(recordings.playsOf(node())).toMatchObject({ left: 1, broken: false });
});

it('goes on where a key of the keyboard paused what cannot be paused', async () => {
  await recordings.start(node());
  FakeAudio.last.pause();
  expect(FakeAudio.last.playing).toBe(true);
  recordings.pause();
  recordings.seek(0);
  recordings.stop();
  expect([FakeAudio.last.playing, FakeAudio.last.currentTime]).toEqual([true, 0]);
});

it('stops with the desk’s clock, and goes on with it', async () => {
  await recordings.start(node());
  recordings.hold();
  expect(FakeAudio.last.playing).toBe(false);
  recordings.goOn();
  expect(FakeAudio.last.playing).toBe(true);
});

it('can be paused, wound and stopped where it may be heard as often as one likes', async () => {
  const free = node({ plays: null, pausing: true });
  await recordings.start(free);
  recordings.pause();
  expect(state().sounding?.state).toBe('paused');
  // A stop of the desk does not start it again.
  recordings.hold();
  recordings.goOn();
  expect(FakeAudio.last.playing).toBe(false);
  recordings.goOnPlaying();
  recordings.seek(7);
  expect([FakeAudio.last.playing, FakeAudio.last.currentTime]).toEqual([true, 7]);
  recordings.stop();
  expect(state().sounding).toBeNull();
});

it('uses no play up for a file that is missing or cannot be played', async () => {
  FakeAudio.broken = true;
  await recordings.start(node());
  expect(state().trouble).toEqual({ file: 'f', what: 'not-played' });
  expect(recordings.playsOf(node())!.left).toBe(2);
  recordings = new Recordings(noFiles);
  await recordings.start(node());
  expect(state().trouble).toEqual({ file: 'f', what: 'no-file' });
  expect(recordings.playsOf(node())!.left).toBe(2);
});

it('tells of one that breaks off, also because the page goes', async () => {
  await recordings.start(node());
  FakeAudio.last.dispatchEvent(new Event('error'));
  expect(recordings.playsOf(node())).toMatchObject({ left: 1, broken: true });
  await recordings.start(node());
  recordings.close();
  expect([FakeAudio.last.playing, state().sounding]).toEqual([false, null]);
});
