import 'katex/dist/katex.min.css';
import katex from 'katex';
import { useLayoutEffect, useRef } from 'react';

/** Commands of the editor that are not of the notation. */
const PLAIN: readonly (readonly [RegExp, string])[] = [
  [/\\placeholder\s{0,9}(?:\[[^\]]{0,99}\])?\{\s{0,9}\}/g, '\\square '],
  [/\\exponentialE/g, '\\mathrm{e}'],
  [/\\degree/g, '^{\\circ}'],
  [/\\euro/g, '\\text{€}'],
  [/\\pounds/g, '\\text{£}'],
  [/\\parallelogram/g, '\\text{▱}'],
  [/\\differentialD/g, '\\mathrm{d}'],
];

/** An expression as it looked in the field; as its signs where it cannot be drawn. */
export function Typeset({ latex, spoken }: { readonly latex: string; readonly spoken: string }) {
  const place = useRef<HTMLSpanElement>(null);
  useLayoutEffect(() => {
    const tex = PLAIN.reduce((text, [command, by]) => text.replace(command, by), latex);
    if (place.current)
      katex.render(tex, place.current, {
        throwOnError: false,
        strict: 'ignore',
        trust: false,
        maxExpand: 100,
        output: 'html',
      });
  }, [latex]);
  return (
    <span className="inline-block max-w-full overflow-x-auto overflow-y-hidden align-middle">
      <span ref={place} aria-hidden />
      <span className="sr-only">{spoken}</span>
    </span>
  );
}
