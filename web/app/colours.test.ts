import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { colourSchemes, type ColourScheme } from '../ui/reading';

const css = readFileSync(path.join(import.meta.dirname, 'styles.css'), 'utf8');

function tokensIn(block: string): Record<string, string> {
  return Object.fromEntries(
    [...block.matchAll(/--color-([a-z-]+): (#[0-9a-f]{3,6});/g)].map(([, name, hex]) => [name!, hex!]),
  );
}
const usual = tokensIn(/@theme \{([^}]*)\}/.exec(css)![1]!);
const schemeOf = (name: ColourScheme): Record<string, string> => ({
  ...usual,
  ...tokensIn(new RegExp(`\\[data-colours='${name}'\\] \\{([^}]*)\\}`).exec(css)![1]!),
});

/** Relative luminance (WCAG 2.2). */
function luminance(hex: string): number {
  const whole = hex.length === 4 ? `#${[...hex.slice(1)].map((c) => c + c).join('')}` : hex;
  const [red, green, blue] = [1, 3, 5].map((i) => {
    const share = Number.parseInt(whole.slice(i, i + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red! + 0.7152 * green! + 0.0722 * blue!;
}
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (light! + 0.05) / (dark! + 0.05);
}

const PAIRS: readonly (readonly [text: string, ground: string])[] = [
  ...['ink', 'soft', 'kelp', 'slate', 'brick', 'marigold'].flatMap((text) =>
    ['paper', 'card', 'shade'].map((ground) => [text, ground] as const),
  ),
  ['kelp', 'wash'],
  ['ink', 'wash'],
  ['marigold', 'marigold-wash'],
  ['brick', 'brick-wash'],
  ['on', 'kelp'],
  ['on', 'kelp-deep'],
  ['on', 'filled'],
];

describe('the colours of the page', () => {
  it.each(colourSchemes)('%s can be read', (name) => {
    const least = name === 'daylight' || name === 'dusk' ? 4.5 : 7;
    const tokens = schemeOf(name);
    const low = PAIRS.map(
      ([text, ground]) => [text, ground, contrast(tokens[text]!, tokens[ground]!)] as const,
    )
      .filter(([, , ratio]) => ratio < least)
      .map(([text, ground, ratio]) => `${text} on ${ground}: ${ratio.toFixed(2)}`);
    expect(low).toEqual([]);
  });

  it.each(colourSchemes)('%s has borders and pressed states that can be seen', (name) => {
    const tokens = schemeOf(name);
    // WCAG 2.2, 1.4.11: 3:1 for what shows a control or its state.
    const low = ['edge', 'kelp'].flatMap((border) =>
      ['paper', 'card', 'shade', 'wash'].flatMap((ground) =>
        contrast(tokens[border]!, tokens[ground]!) < 3 ? [`${border} on ${ground}`] : [],
      ),
    );
    expect(low).toEqual([]);
  });

  it('daylight says again what is usual, so that a picture can keep it', () =>
    expect(schemeOf('daylight')).toEqual(usual));
});
