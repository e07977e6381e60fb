import type { RichNode } from '../../core/kinds/shared/richText';
import type { Random } from '../../core/random';

/** The level of each criterion that an essay is written at: what a careful reader would give, as the index of a level. */
export interface EssayLevels {
  readonly f: number;
  readonly r: number;
  readonly a: number;
  readonly l: number;
}

type Bank = readonly (readonly string[])[];

/** By level: the facts of the night. `|` parts what can be said in several ways. */
const FACTS: Bank = [
  [
    'Something went wrong in the store {on the weekend|some days ago|in the night}, and people were {upset|surprised|not there} about it.',
    'There was a problem with one of the bays and {it was found later|somebody noticed in the end}.',
  ],
  [
    'Bay 3 {lost power|had no supply|was without current} {in the evening|one night|overnight} and {nobody noticed|no one was there} until the morning.',
    'The alarm {rang|went off} but {the desk was empty|nobody heard it}, so the bay {got warm|warmed up}.',
  ],
  [
    'On {9 March|the night of 9 March} at 21:40 the supply to bay 3 dipped, and the alarm rang {only at the desk|at an empty desk}.',
    'By 06:50 the bay {stood at|had reached} 11 °C. K-2 and K-4 were {inside|in it|still there}.',
    'The reserve cooler {reported ready|said it was ready} but {did not take over|never started}.',
  ],
  [
    'At 21:40 on 9 March the supply to bay 3 dipped; the alarm rang at the desk alone, and the desk was {empty|not staffed}.',
    'The reserve cooler reported ready at 22:05 but did not take over, so the bay warmed to 11 °C {over about nine hours|by 06:50|in some nine hours}.',
    'Lots K-2 and K-4 were inside; K-1 and K-3 had been moved {to the north rack|away} at 18:30.',
    'At 06:55 the cooler was started by hand, and the bay was back at −18 °C at 09:10.',
  ],
];

const REASONS: Bank = [
  [''],
  [
    'The counts of K-4 are {different|not the same}, so the {seeds|lot} must be {bad|damaged}.',
    'K-4 is probably {spoiled|useless now}, because {it was warm|of the night}.',
  ],
  [
    'K-4 was counted twice, 163 and 148; {somebody|one of the two} may not have used the rule of root length.',
    'Warmth can {start|begin} germination, {so some seeds may have woken|which is bad for storage}.',
  ],
  [
    'The first count of K-4 gave 163 and the second 148, {because|since} one {of us|person} had counted split seed coats; by the rule of root length only 148 count.',
    'Nine hours at 11 °C can {begin|start} germination in moist seed, {which is why|so} both lots are in doubt until they are tested.',
  ],
];

const ACTIONS: Bank = [
  [''],
  [
    'People should be more careful {in future|with the cooler|next time}.',
    'Somebody should {look at|check} the alarm and {do something|think} about it.',
  ],
  [
    'K-4 should be {counted again|recounted} and re-sown if it fails. The alarm should {ring|reach} the person on call.',
    'Test the reserve cooler {every month|monthly}, and mark the lots as warmed.',
  ],
  [
    'First, {today|at once}, recount K-2 and K-4 by root length. Second, mark both lots as warmed and {re-sow|sow again} whatever falls below the limit.',
    'Third, {by Friday|this week}, have the alarm ring the person on call; last, test the reserve cooler {under load|each month} and note it in the book.',
  ],
];

const CLOSINGS = [
  'The log of the night is {kept with|attached to} this note.',
  'I have told the {early shift|next shift} and left this {note|page} in the book.',
  'Whoever reads this later can ask {me|the desk} for the {readings|figures}.',
  'Written by me on the {morning|day} after.',
];

/** What makes a text hard to follow: said of none of the facts. */
const MUDDLES = [
  'like I said',
  'and so on and so on',
  'it is what it is',
  'as everybody knows',
  'more or less anyway',
];
const LINKS = ['', '', 'Then ', 'After that ', 'I found that ', 'As far as I know, '];

const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)]!;
const worded = (text: string, random: Random) =>
  text.replace(/\{([^}]*)\}/g, (_, ways: string) => pick(ways.split('|'), random));
/** Some sentences of a level, in their order, at least one. */
function some(bank: readonly string[], share: number, random: Random): string[] {
  const chosen = bank.filter(() => random() < share);
  return (chosen.length > 0 ? chosen : [pick(bank, random)])
    .filter((text) => text !== '')
    .map((text) => worded(text, random));
}
const linked = (text: string, random: Random) => {
  const link = pick(LINKS, random);
  return link === '' || /^(I|K-|\d)/.test(text) ? text : link + text[0]!.toLowerCase() + text.slice(1);
};
const muddled = (text: string, random: Random) =>
  text.replace(/[.;]$/, `, ${pick(MUDDLES, random)}, ${pick(MUDDLES, random)}.`).replaceAll(', ', ' ');

const paragraph = (sentences: readonly string[]): RichNode[] =>
  sentences.length === 0
    ? []
    : [{ type: 'paragraph', content: [{ type: 'text', text: sentences.join(' ') }] }];

/** An essay at these levels. The same random gives the same essay; hardly ever are two alike. */
export function writeEssay(levels: EssayLevels, random: Random): { readonly text: RichNode } {
  const style = (text: string) => (levels.l === 0 ? muddled(text, random) : linked(text, random));
  const facts = some(FACTS[levels.f]!, levels.f === 3 ? 1 : 0.8, random).map((text, i) =>
    i === 0 ? text : style(text),
  );
  const reasons = some(REASONS[levels.r]!, levels.r === 3 ? 1 : 0.7, random).map(style);
  const actions = some(ACTIONS[levels.a]!, levels.a === 3 ? 1 : 0.8, random);
  const closing = random() < 0.7 ? [worded(pick(CLOSINGS, random), random)] : [];
  const content = [...paragraph(facts), ...paragraph(reasons), ...paragraph([...actions, ...closing])];
  return { text: { type: 'doc', content } };
}
