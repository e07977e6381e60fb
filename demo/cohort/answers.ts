import type { Random } from '../../core/random';
import type { EssayLevels } from './essays';

/** Names as somebody else would have chosen them. */
const NAMES = [
  ['lots', 'lot', 'best', 'share'],
  ['batches', 'b', 'winner', 'top'],
  ['rows', 'row', 'strongest', 'most'],
  ['all_lots', 'one', 'name', 'ratio'],
  ['items', 'item', 'leader', 'high'],
] as const;

type Program = {
  readonly language: string;
  readonly programs: Readonly<Record<string, Readonly<Record<string, string>>>>;
};

const python = (text: string): Program => ({
  language: 'python',
  programs: { python: { 'program.py': text } },
});
const javascript = (text: string): Program => ({
  language: 'javascript',
  programs: { javascript: { 'program.js': text } },
});

/** Programs for the strongest lot, from right to wrong; each is also written with other names. */
export function strongestProgram(quality: number, random: Random): Program {
  const [all, one, best, top] = NAMES[Math.floor(random() * NAMES.length)]!;
  const right = [
    python(
      `def strongest(${all}):\n    ${best}, ${top} = "", -1.0\n    for ${one} in ${all}:\n        if ${one}["sown"] == 0:\n            continue\n        part = ${one}["up"] / ${one}["sown"]\n        if part > ${top}:\n            ${best}, ${top} = ${one}["name"], part\n    return ${best}\n`,
    ),
    javascript(
      `function strongest(${all}) {\n  const sown = ${all}.filter((${one}) => ${one}.sown > 0);\n  sown.sort((a, b) => b.up / b.sown - a.up / a.sown);\n  return sown.length > 0 ? sown[0].name : "";\n}\n`,
    ),
  ];
  const partly = [
    javascript(
      `function strongest(${all}) {\n  let ${best} = "", ${top} = 0;\n  for (const ${one} of ${all}) {\n    if (${one}.sown > 0 && ${one}.up / ${one}.sown > ${top}) {\n      ${best} = ${one}.name;\n      ${top} = ${one}.up / ${one}.sown;\n    }\n  }\n  return ${best};\n}\n`,
    ),
  ];
  const wrong = [
    javascript(`function strongest(${all}) {\n  return ${all}[0].name;\n}\n`),
    python(`def strongest(${all}):\n    return max(${all}, key=lambda ${one}: ${one}["up"])["name"]\n`),
  ];
  const from = quality > 0.6 ? right : quality > 0.3 ? partly : wrong;
  return from[Math.floor(random() * from.length)]!;
}

/** Queries for the best shares, from right to wrong: the second loses lots without a count. */
export function sharesQuery(quality: number): Program {
  const joined = quality > 0.5 ? 'left join' : quality > 0.25 ? 'join' : 'cross join';
  const text = `select species, count(*) as lots, round(max(100.0 * up / sown), 1) as best\nfrom lot ${joined} germination on lot.id = germination.lot and day = 21\ngroup by species\norder by best desc\n`;
  return { language: 'sql', programs: { sql: { 'query.sql': text } } };
}

const clamp = (value: number, most: number) => Math.min(most, Math.max(0, Math.round(value)));

/** The levels of an essay by somebody of an ability in 0..1. */
export const essayLevels = (ability: number, random: Random): EssayLevels => {
  const level = (most: number) => clamp(ability * most + (random() - 0.5) * 1.6, most);
  return { f: level(3), r: level(3), a: level(3), l: level(2) };
};

/** The levels of the working on paper: of the way, and of the figure. */
export const pageLevels = (ability: number, random: Random) => {
  const working = clamp(ability * 3.3 + (random() - 0.5) * 1.4, 3);
  return { w: working, r: working === 3 ? 1 : 0 };
};

/**
 * What an assessor of a severity (in levels of a criterion; above 0 is severe) and a spread makes of a true level: the
 * known make of the demo's two assessors, by which the figures of agreement can be checked.
 */
export function readAs(
  level: number,
  most: number,
  { severity, spread }: { readonly severity: number; readonly spread: number },
  random: Random,
): number {
  // The sum of three even numbers is nearly normal.
  const noise = random() + random() + random() - 1.5;
  return clamp(level - severity + noise * spread, most);
}
