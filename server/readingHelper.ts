import { answersReads } from './answers/reads';
import { correctionReads } from './corrections/reads';
import type { Config } from './config';
import { helperData, serveTasks } from './helpers/serveTasks';
import { lettersList } from './mail/lists';
import { qualityReads } from './marking/quality';
import { markingReads, pilesList } from './marking/reads';
import { agreementList, markingList } from './exports/marking';
import { marksList, scriptMarksList } from './exports/marks';
import { badRequest, conflict } from './http/errors';
import { experienceRead } from './experience/reads';
import { papersList } from './papers/lists';
import { exportRows } from './reading/exportRows';
import { openReading } from './papers/openReading';
import type { Listing, Read, Reading } from './reading/read';
import type { ExportAsked, ListAsked, ReadAsked } from './reading/reader';
import { peopleFileRead } from './rounds/peopleFile';
import { resultRead } from './results/operations';
import { distributionRead, resultsList, staffSheetRead } from './results/reads';
import { replayRead, reviewRead } from './review/reads';
import { versionsRead } from './review/versions';
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
  marksList,
  scriptMarksList,
  markingList,
  agreementList,
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
  versionsRead,
  experienceRead,
  peopleFileRead,
] as unknown as Read<unknown, unknown>[];

const readingAt = openReading(helperData<Config>());

const byName = <T extends { readonly name: string }>(all: readonly T[], name: string): T => {
  const found = all.find((one) => one.name === name);
  if (!found) throw new Error(`nothing is called ${name}`);
  return found;
};

/** A list as it is asked for. One that is asked for by a filter that it does not have says so. */
function listed(reading: Reading, { listing, owner, query }: Pick<ListAsked, 'listing' | 'owner' | 'query'>) {
  const one = byName(listings, listing);
  const known = query.filter === '' || (one.filters?.(reading, owner) ?? []).includes(query.filter);
  if (!known) throw badRequest('noSuchFilter', query.filter);
  return { one, page: one.list(reading, owner, query) };
}

serveTasks({
  read: ({ read, input, now }: ReadAsked) => byName(reads, read).run(readingAt(now), input),
  list: ({ now, ...asked }: ListAsked) => listed(readingAt(now), asked).page,
  export: ({ listing, owner, query, now, ...as }: ExportAsked) => {
    const reading = readingAt(now);
    const { one, page } = listed(reading, { listing, owner, query });
    // Half a table that looks whole would be worse than none.
    if (page.count > page.rows.length) throw conflict('list-too-long', { values: { count: page.count } });
    return exportRows(one, page.rows, { ...as, more: one.more?.(reading, owner) ?? [] });
  },
});
