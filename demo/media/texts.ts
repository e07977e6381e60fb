/** What is said in the briefing; also its transcript. */
export const BRIEFING = [
  'Good morning, and welcome to the field day at Hollin Reach. You will work in three groups. Group one starts at the north beach, at a quarter past nine. Group two starts in the dunes, at half past nine. Group three begins at the seed store, at ten o’clock, and goes to the beach after lunch.',
  'Please take gloves, a hand lens and the yellow record card. The white card is for the laboratory, so leave it here.',
  'On the beach, collect seed from no more than one plant in five, and never more than twenty per cent of the seed on a plant. Put the seed in paper bags, not in plastic: it must stay dry. Write the number of the plant and the time on each bag.',
  'High water today is at ten past one. Everybody has to be off the north beach by half past twelve. If the red flag goes up at the seed store, come back at once, whatever you are doing.',
];

/** What is said in the film, with the second at which it begins. */
export const FILM: readonly { readonly at: number; readonly says: string }[] = [
  { at: 0.3, says: 'This tray holds twelve seeds of sea kale on damp sand.' },
  { at: 5, says: 'On day seven, three seeds have a root.' },
  { at: 9.5, says: 'On day fourteen there are seven. The two grey ones are empty.' },
  { at: 15, says: 'On day twenty-one, nine of the twelve have germinated.' },
];

/** Seeds with a root on each of the days shown. */
export const FILM_DAYS: readonly { readonly at: number; readonly day: number; readonly rooted: number }[] = [
  { at: 0, day: 0, rooted: 0 },
  { at: 5, day: 7, rooted: 3 },
  { at: 9.5, day: 14, rooted: 7 },
  { at: 15, day: 21, rooted: 9 },
];

export const FILM_SECONDS = 20;
export const FILM_DESCRIPTION =
  'A tray of twelve seeds, in three rows of four. A counter shows day 0, 7, 14 and 21. Seeds with a root turn green and grow a white line: none, then three, seven and nine. Two seeds of the lowest row turn grey.';
