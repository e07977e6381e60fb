import type { GapShown, GapsShown } from './response';

export type Piece = { readonly text: string } | { readonly gap: GapShown; readonly position: number };

/** The text cut at its gaps, in reading order; `position` counts gaps from 1 as they stand in the text. */
export function cutAtGaps(shown: GapsShown): Piece[] {
  let position = 0;
  return shown.text
    .split(/(\[\[[a-z0-9]+\]\])/)
    .filter((text) => text !== '')
    .map((text): Piece => {
      const gap = shown.gaps.find((g) => text === `[[${g.key}]]`);
      return gap ? { gap, position: ++position } : { text };
    });
}

export const gapsInOrder = (shown: GapsShown): { gap: GapShown; position: number }[] =>
  cutAtGaps(shown).filter((piece) => 'gap' in piece);
