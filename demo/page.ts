import type { DemoPage } from '../core/demo/api';
import {
  invitedLater,
  invitedNow,
  invitedToCounting,
  invitedToEntrance,
  invitedToEvening,
  invitedToSupervised,
  missedOctober,
  releasedInOctober,
  staffMembers,
  type DemoCandidate,
} from './people';

const as = ({ name, email }: DemoCandidate, round: string, good: string) => ({ name, email, round, good });

/** What the front page of the demo offers, in the order in which it is read. */
export const demoPage: DemoPage = {
  candidates: [
    as(invitedNow[0]!, 'technician-november', 'can start now, 25 % extra time'),
    as(invitedNow[1]!, 'technician-november', 'can start now'),
    as(invitedToCounting[0]!, 'counting-check', 'three tests; of one, attempt 2 of 3 is next'),
    as(invitedToEvening[0]!, 'technician-evening', 'waits for the door code'),
    as(invitedToSupervised[0]!, 'technician-supervised', 'is admitted by hand'),
    as(invitedToEntrance[0]!, 'field-school-entrance', 'entrance paper, with recordings and sources'),
    as(invitedToEntrance[1]!, 'field-school-entrance', 'the same with transcripts'),
    as(releasedInOctober[1]!, 'technician-october', 'has a result'),
    as(invitedLater[0]!, 'technician-january', 'is too early'),
    as(missedOctober[0]!, 'technician-october', 'is too late'),
  ],
  staff: staffMembers.map(({ name, email, roles }) => ({ name, email, roles })),
  suggestions: [
    'Take the technician’s test as Mattis Okafor-Lind. The camera can be a drawn stand-in.',
    'Look at a result with its reasons as a candidate who has one.',
    'Mark the incident notes as Tamsin Ebanks, with the keyboard alone.',
    'Watch a round as Bram Ostler while a candidate is at the desk in another window.',
    'Look at rounds, papers and results as Odile Varr.',
  ],
};
