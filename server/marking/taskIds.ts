import { randomInt } from 'node:crypto';

/** As large as a whole number can be without losing exactness on its way through JSON. */
const MOST_ID = 2 ** 47;

/** By chance: the order in which papers were handed in tells who wrote what. */
export const newTaskId = (): number => randomInt(1, MOST_ID);
/** Where a script lies in an assessor's queue. */
export const positionByChance = (): number => randomInt(1, MOST_ID);
