import { person, type DemoCandidate } from '../people';

const FIRST = (
  'Aurelio Brielle Cormac Delphine Eskil Fenna Gideon Hanne Isolde Jorunn Kaspian Liesel Merrick Niamh Osric Petra ' +
  'Quillon Rosalind Soren Tamar Ulrika Vesper Wendel Xanthe Ysolde Zephyrin Alder Bettany Cyprian Dagny'
).split(' ');
const LAST = (
  'Abernow Brackwater Calloway-Finn Dunmarsh Elverhoy Fairlock Grimsvane Hollowell Inverarity Jessamer Kittowe ' +
  'Lindqvane Marshgrave Netherby Oakhampton Pellinore Quarrendon Ravenscar Saltmarsh Thornquist'
).split(' ');

/** The simulated candidates of the main sitting: names that nobody bears, no two alike. */
export const cohort: DemoCandidate[] = Array.from({ length: 60 }, (_, i) =>
  person(
    `${FIRST[i % FIRST.length]!} ${LAST[(i * 7 + Math.floor(i / FIRST.length)) % LAST.length]!}`,
    i % 15 === 4 ? 25 : 0,
  ),
);
