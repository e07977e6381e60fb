/** Reads one sentence; tells each word as it comes. */
export interface Voice {
  /** Gives how to stop. */
  speak(text: string, speed: number, events: VoiceEvents): () => void;
}

export interface VoiceEvents {
  readonly onWord: (start: number, length: number) => void;
  readonly onEnd: () => void;
}

/** Words a minute of the simulated voice at speed 1. */
const WORDS_A_MINUTE = 170;

export const wordsOf = (text: string): { start: number; length: number }[] =>
  [...new Intl.Segmenter('en', { granularity: 'word' }).segment(text)]
    .filter((one) => one.isWordLike === true)
    .map(({ index, segment }) => ({ start: index, length: segment.length }));

/** Goes from word to word without a sound, where the device has no voice of its own. */
export const simulatedVoice: Voice = {
  speak(text, speed, { onWord, onEnd }) {
    const all = wordsOf(text);
    let next = 0;
    const tell = () => {
      const word = all[next++];
      if (word) onWord(word.start, word.length);
      else {
        clearInterval(timer);
        onEnd();
      }
    };
    const timer = setInterval(tell, 60_000 / (WORDS_A_MINUTE * speed));
    return () => clearInterval(timer);
  },
};

/** A voice that is on the device itself: what is read must not leave it. */
export const localVoice = (language: string): SpeechSynthesisVoice | null =>
  (typeof speechSynthesis === 'undefined' ? [] : speechSynthesis.getVoices()).find(
    (voice) => voice.localService && voice.lang.toLowerCase().startsWith(language.slice(0, 2)),
  ) ?? null;

/** The device's own voice. */
export const deviceVoice = (voice: SpeechSynthesisVoice): Voice => ({
  speak(text, speed, { onWord, onEnd }) {
    const utterance = new SpeechSynthesisUtterance(text);
    [utterance.voice, utterance.lang, utterance.rate] = [voice, voice.lang, speed];
    let stopped = false;
    utterance.onboundary = ({ name, charIndex }) => {
      if (stopped || name !== 'word') return;
      const length = wordsOf(text).find((one) => one.start === charIndex)?.length ?? 1;
      onWord(charIndex, length);
    };
    utterance.onend = () => !stopped && onEnd();
    utterance.onerror = () => !stopped && onEnd();
    speechSynthesis.speak(utterance);
    return () => {
      stopped = true;
      speechSynthesis.cancel();
    };
  },
});
