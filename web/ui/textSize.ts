import { create } from 'zustand';

export const textSizes = [100, 115, 130, 150] as const;
export type TextSize = (typeof textSizes)[number];

const STORED = 'clear-sitting-text-size';

function read(): TextSize {
  const stored = Number(localStorage.getItem(STORED));
  return textSizes.find((size) => size === stored) ?? 100;
}

interface TextSizeState {
  readonly size: TextSize;
  readonly set: (size: TextSize) => void;
}

/** The size of a candidate's text, kept on the device. */
export const useTextSize = create<TextSizeState>((set) => ({
  size: read(),
  set(size) {
    localStorage.setItem(STORED, String(size));
    set({ size });
  },
}));
