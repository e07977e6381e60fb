import { createContext } from 'react';
import { createStore } from 'zustand';
import type { AudioNode } from '../../core/documents/document';
import type { FileSource } from './fileSource';
import { TrialPlays, type PlayKeeper, type PlaysState } from './plays';

export type Trouble = 'no-file' | 'not-played' | 'not-ready';

/** What is heard now, if anything is. */
export interface Sounding {
  readonly file: string;
  readonly state: 'starting' | 'playing' | 'paused';
  readonly atSeconds: number;
}

export interface RecordingsState {
  readonly sounding: Sounding | null;
  readonly volume: number;
  /** The candidate has heard the test tone. */
  readonly checked: boolean;
  readonly trouble: { readonly file: string; readonly what: Trouble } | null;
  /** Counts what the keeper of plays has told, so that whoever draws them draws them again. */
  readonly told: number;
}

const TONE_HZ = [523, 659];
const TONE_S = 0.5;

/** Two soft notes, by which the volume is set before anything that counts is heard. */
function playTone(volume: number): void {
  const context = new AudioContext();
  TONE_HZ.forEach((frequency, i) => {
    const at = context.currentTime + i * TONE_S;
    const gain = new GainNode(context, { gain: 0 });
    gain.gain.linearRampToValueAtTime(volume * 0.5, at + 0.05);
    gain.gain.linearRampToValueAtTime(0, at + TONE_S);
    const tone = new OscillatorNode(context, { frequency });
    tone.connect(gain).connect(context.destination);
    tone.start(at);
    tone.stop(at + TONE_S);
  });
  setTimeout(() => void context.close(), TONE_HZ.length * TONE_S * 1000 + 300);
}

/**
 * The sound of a desk: one recording at a time, outside the pages that show it, so that turning to another question does
 * not break it off. A stop of the whole desk holds it, and it goes on afterwards.
 */
export class Recordings {
  readonly store = createStore<RecordingsState>(() => ({
    sounding: null,
    volume: 0.8,
    checked: false,
    trouble: null,
    told: 0,
  }));
  /** Asks the invigilator for one more play of a recording, by its title; null where there is nobody to ask. */
  askForPlay: ((title: string) => Promise<void>) | null = null;
  private readonly files: FileSource;
  private readonly keeper: PlayKeeper;
  private readonly stopListening: () => void;
  private audio: HTMLAudioElement | null = null;
  private node: AudioNode | null = null;
  /** It was us who paused: the candidate's press, or a stop. */
  private pausing = false;
  private held = false;

  constructor(files: FileSource, keeper: PlayKeeper = new TrialPlays()) {
    [this.files, this.keeper] = [files, keeper];
    this.stopListening = keeper.subscribe(() => this.store.setState(({ told }) => ({ told: told + 1 })));
  }

  /** Of a recording whose plays are counted. */
  playsOf({ file, plays }: AudioNode): PlaysState | null {
    return plays === null ? null : this.keeper.stateOf(file, plays);
  }

  /** Opens the file ahead, so that pressing *Play* waits for nothing. */
  prepare(file: string): void {
    void this.files.open(file);
  }

  setVolume(volume: number): void {
    this.store.setState({ volume });
    if (this.audio) this.audio.volume = volume;
  }

  testSound(): void {
    playTone(this.store.getState().volume);
  }

  heardTest(): void {
    this.store.setState({ checked: true });
  }

  /** Starts a recording from its beginning. A counted play is used up first: from then on nothing gives it back. */
  async start(node: AudioNode): Promise<void> {
    if (this.store.getState().sounding) return;
    const { file } = node;
    this.store.setState({ sounding: { file, state: 'starting', atSeconds: 0 }, trouble: null });
    // Where the file is open already, the sound is begun within the press that asked for it, as some browsers demand.
    const address = this.files.address(file) ?? (await this.files.open(file));
    if (address === null) return this.fail(file, 'no-file');
    const audio = new Audio(address);
    audio.volume = this.store.getState().volume;
    if (!(await canPlay(audio))) return this.fail(file, 'not-played');
    if (node.plays !== null && !(await this.keeper.use(file))) return this.fail(file, 'not-ready');
    [this.audio, this.node, this.pausing] = [audio, node, false];
    audio.addEventListener('timeupdate', () => this.moved());
    audio.addEventListener('ended', () => this.over(true));
    audio.addEventListener('error', () => this.over(false));
    audio.addEventListener('pause', () => this.paused());
    await this.sound();
  }

  /** Only where the recording may be paused. */
  pause(): void {
    if (!this.node?.pausing || !this.audio) return;
    this.pausing = true;
    this.audio.pause();
    this.moved('paused');
  }

  goOnPlaying(): void {
    this.pausing = false;
    void this.sound();
  }

  seek(seconds: number): void {
    if (!this.node?.pausing || !this.audio) return;
    this.audio.currentTime = seconds;
    this.moved();
  }

  /** Stops a recording that can be heard as often as one likes. */
  stop(): void {
    if (this.node?.plays === null) this.over(true);
  }

  /** The desk is put away for a while: a pause, a rest break. */
  hold(): void {
    this.held = true;
    this.audio?.pause();
  }

  goOn(): void {
    if (!this.held) return;
    this.held = false;
    if (this.audio && !this.pausing) void this.sound();
  }

  close(): void {
    this.stopListening();
    if (this.audio) this.over(false);
  }

  private async sound(): Promise<void> {
    try {
      await this.audio!.play();
      this.moved('playing');
    } catch {
      if (!this.held) this.over(false);
    }
  }

  private moved(state?: Sounding['state']): void {
    const { sounding } = this.store.getState();
    if (!this.audio || !sounding) return;
    this.store.setState({
      sounding: { ...sounding, state: state ?? sounding.state, atSeconds: this.audio.currentTime },
    });
  }

  /** Not by us: a key of the keyboard, a headset. What cannot be paused goes on. */
  private paused(): void {
    if (this.pausing || this.held || !this.audio || this.audio.ended) return;
    if (this.node?.pausing) {
      this.pausing = true;
      this.moved('paused');
    } else void this.sound();
  }

  private over(heard: boolean): void {
    const [audio, node] = [this.audio, this.node];
    [this.audio, this.node] = [null, null];
    if (!audio || !node) return;
    audio.pause();
    audio.removeAttribute('src');
    this.store.setState({ sounding: null });
    if (node.plays !== null) this.keeper.finish(node.file, heard);
    else if (!heard) this.store.setState({ trouble: { file: node.file, what: 'not-played' } });
  }

  private fail(file: string, what: Trouble): void {
    this.store.setState({ sounding: null, trouble: { file, what } });
  }
}

/** Begins it without sound, and goes back: what cannot or may not be played here costs no play. */
async function canPlay(audio: HTMLAudioElement): Promise<boolean> {
  audio.muted = true;
  try {
    await audio.play();
  } catch {
    return false;
  }
  audio.pause();
  audio.currentTime = 0;
  audio.muted = false;
  return true;
}

/** Null where nothing can be played. */
export const RecordingsOf = createContext<Recordings | null>(null);
