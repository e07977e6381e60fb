import type { Role } from '../core/rounds/api';

/** Invented people. The passwords are for the demo only; `npm run demo` prints them. */
export const staffMembers: { email: string; name: string; password: string; roles: Role[] }[] = [
  {
    email: 'odile.varr@example.org',
    name: 'Odile Varr',
    password: 'marram-grass-by-the-wall',
    roles: ['coordinator'],
  },
  {
    email: 'lennart.fosse@example.org',
    name: 'Lennart Fosse',
    password: 'two-keys-for-the-vault',
    roles: ['coordinator'],
  },
  {
    email: 'tamsin.ebanks@example.org',
    name: 'Tamsin Ebanks',
    password: 'sea-kale-in-march',
    roles: ['assessor'],
  },
  {
    email: 'ruan.petrel@example.org',
    name: 'Ruan Petrel',
    password: 'thrift-on-the-ledge',
    roles: ['assessor'],
  },
  {
    email: 'hedda.lorne@example.org',
    name: 'Hedda Lorne',
    password: 'samphire-at-low-tide',
    roles: ['lead'],
  },
  {
    email: 'bram.ostler@example.org',
    name: 'Bram Ostler',
    password: 'lamp-over-the-quay',
    roles: ['invigilator'],
  },
];

export interface DemoCandidate {
  readonly name: string;
  readonly email: string;
  readonly extraPercent: number;
  readonly breakMinutes: number;
  readonly transcripts: boolean;
}

export const person = (name: string, extraPercent = 0, breakMinutes = 0): DemoCandidate => {
  const address = name
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z]+/g, '.');
  return { name, email: `${address}@example.org`, extraPercent, breakMinutes, transcripts: false };
};

/** Invited and not yet begun: `npm run demo` prints their links. */
export const invitedNow = [
  person('Ilse Brandvold', 25),
  person('Mattis Okafor-Lind'),
  person('Perpetua Zanardi'),
];

/** Invited to the technician's test as well; of three attempts at the counting check one is handed in. */
export const invitedToCounting = [person('Perpetua Zanardi')];

/** Invited to the evening sitting, which a door code begins. */
export const invitedToEvening = [person('Corin Halvard')];

/** Invited to the supervised sitting, where the invigilator admits each by hand. */
export const invitedToSupervised = [person('Signe Tolland', 25, 10), person('Rurik Vane')];

/** Invited to the Field School's entrance paper; the second reads transcripts instead of hearing. */
export const invitedToEntrance = [
  person('Amadou Ferrante'),
  { ...person('Bettina Osei-Clarke', 25), transcripts: true },
  person('Ludo Marchetti'),
];

/** Invited to try every kind of question. */
export const invitedToKinds = [person('Runa Aldercott'), person('Pavel Istrup'), person('Mirela Quist')];

/** Invited to a round that opens only in January. */
export const invitedLater = [person('Tove Abernathy-Ruiz')];

/** Have handed in; their writing waits for assessors. */
export const handedInNow = [
  'Joaquin Sarre',
  'Noor Weltevrede',
  'Dov Harrowgate',
  'Yusra Telkamp',
  'Anselm Quiroga',
  'Linnea Achterberg',
  'Caspian Odhiambo',
  'Freya Montclair-Singh',
  'Idris Holloway',
  'Salome Vantongeren',
  'Emrys Castellane',
  'Wilhelmina Dass',
].map((name, i) => person(name, i % 5 === 2 ? 25 : 0));

/** Sat in October; their results are out. */
export const releasedInOctober = ['Marguerite Sundqvist', 'Tobiah Lindqvar', 'Oluwaseun Fairweather'].map(
  (name) => person(name),
);

/** Invited in October and never came. */
export const missedOctober = [person('Benedikt Aumont')];
