import { answersReads } from './answers/reads';
import { correctionReads } from './corrections/reads';
import type { Config } from './config';
import { helperData, serveTasks } from './helpers/serveTasks';
import { lettersList } from './mail/lists';
import { qualityReads } from './marking/quality';
import { markingReads, pilesList } from './marking/reads';
import { experienceRead } from './experience/reads';
import { papersList } from './papers/lists';
import { exportRows } from './reading/exportRows';
import { openReading } from './papers/openReading';
import type { Listing, Read } from './reading/read';
import type { ExportAsked, ListAsked, ReadAsked } from './reading/reader';
import { peopleFileRead } from './rounds/peopleFile';
import { resultRead } from './results/operations';
import { distributionRead, resultsList, staffSheetRead } from './results/reads';
import { replayRead, reviewRead } from './review/reads';
import { candidatesList, peopleList, roundReads, roundsList } from './rounds/reads';

/* What staff look up: every list and every report has its line here. */

const listings = [
  roundsList,
  papersList,
  candidatesList,
  peopleList,
  lettersList,
  pilesList,
  resultsList,
] as unknown as Listing<unknown, unknown>[];
const reads = [
  ...roundReads,
  ...markingReads,
  ...qualityReads,
  ...answersReads,
  ...correctionReads,
  resultRead,
  distributionRead,
  staffSheetRead,
  reviewRead,
  replayRead,
  experienceRead,
  peopleFileRead,
] as unknown as Read<unknown, unknown>[];

const readingAt = openReading(helperData<Config>());

const byName = <T extends { readonly name: string }>(all: readonly T[], name: string): T => {
  const found = all.find((one) => one.name === name);
  if (!found) throw new Error(`nothing is called ${name}`);
  return found;
};

serveTasks({
  read: ({ read, input, now }: ReadAsked) => byName(reads, read).run(readingAt(now), input),
  list: ({ listing, owner, query, now }: ListAsked) =>
    byName(listings, listing).list(readingAt(now), owner, query),
  export: ({ listing, owner, query, now, ...as }: ExportAsked) => {
    const one = byName(listings, listing);
    return exportRows(one, one.list(readingAt(now), owner, query).rows, as);
  },
});
