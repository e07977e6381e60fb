import { create } from 'zustand';

export const textSizes = [90, 100, 115, 130, 150, 175, 200] as const;
export type TextSize = (typeof textSizes)[number];
/** Spacing of lines, as a share of the usual one. */
export const lineSpacings = [100, 120, 140] as const;
export type LineSpacing = (typeof lineSpacings)[number];
/** As the style sheet names them; `daylight` is how the application looks of itself. */
export const colourSchemes = [
  'daylight',
  'dusk',
  'black-on-white',
  'black-on-cream',
  'white-on-black',
  'cream-on-navy',
] as const;
export type ColourScheme = (typeof colourSchemes)[number];

interface Reading {
  readonly size: TextSize;
  readonly spacing: LineSpacing;
  readonly colours: ColourScheme;
}

const STORED = 'clear-sitting-reading';

function read(): Reading {
  const first: Reading = { size: 100, spacing: 100, colours: 'daylight' };
  try {
    const stored = JSON.parse(localStorage.getItem(STORED) ?? '{}') as Partial<
      Record<keyof Reading, unknown>
    >;
    return {
      size: textSizes.find((one) => one === stored.size) ?? first.size,
      spacing: lineSpacings.find((one) => one === stored.spacing) ?? first.spacing,
      colours: colourSchemes.find((one) => one === stored.colours) ?? first.colours,
    };
  } catch {
    // Nothing kept, or nothing that can be read.
    return first;
  }
}

interface ReadingState extends Reading {
  readonly set: (change: Partial<Reading>) => void;
}

/** How a candidate reads: size and spacing of the text, and colours, kept on the device. */
export const useReading = create<ReadingState>((set, get) => ({
  ...read(),
  set(change) {
    set(change);
    const { size, spacing, colours } = get();
    try {
      localStorage.setItem(STORED, JSON.stringify({ size, spacing, colours }));
    } catch {
      // Not allowed here: it is kept as long as the page.
    }
  },
}));
