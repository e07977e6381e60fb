import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { hasTwice, keysOf, knownOnce, textOf } from '../shared/entries';
import { binsOf, chipsIn, type SortResponse, type SortShown } from './response';

function progress(shown: SortShown, response: SortResponse): Progress {
  const open = shown.chips.filter(({ key }) => binsOf(response, key).length === 0);
  const count = open.length;
  if (count === shown.chips.length)
    return { state: 'empty', missing: message(shown.leftOver ? 'sort.emptySome' : 'sort.empty', { count }) };
  if (count === 0 || shown.leftOver) return { state: 'done', missing: null };
  return { state: 'part', missing: message('sort.open', { count, text: open[0]!.text }) };
}

function misfit({ chips, bins, often }: SortShown, response: SortResponse) {
  const placed = Object.values(response.bins).flat();
  const known = (list: readonly { readonly key: string }[], key: string) =>
    list.some((entry) => entry.key === key);
  if (
    Object.keys(response.bins).some((bin) => !known(bins, bin)) ||
    placed.some((chip) => !known(chips, chip))
  )
    return message('sort.unknown');
  if (Object.values(response.bins).some(hasTwice) || (!often && hasTwice(placed)))
    return message('sort.twice');
  const full = bins.find(({ key, limit }) => limit !== null && chipsIn(response, key).length > limit);
  return full ? message('sort.tooMany', { text: full.text, count: full.limit! }) : null;
}

function fitting({ chips, bins }: SortShown, response: SortResponse): SortResponse {
  const placed = keysOf(bins).map((bin) => [bin, knownOnce(chipsIn(response, bin), keysOf(chips))] as const);
  return { bins: Object.fromEntries(placed.filter(([, inside]) => inside.length > 0)) };
}

export const sort: CandidateKind<SortShown, SortResponse> = {
  ...plainCandidate,
  name: 'sort',
  empty: () => ({ bins: {} }),
  misfit,
  fitting,
  progress,
  guessing: ({ leftOver, often }) => (leftOver || often ? 'within' : 'free'),
  rule: ({ leftOver }) => message(leftOver ? 'sort.ruleLeftOver' : 'sort.rule'),
  describe: ({ bins, chips }, response) => ({
    form: 'list',
    text: bins
      .filter(({ key }) => chipsIn(response, key).length > 0)
      .map(({ key, text }) => {
        const inside = chipsIn(response, key).map((chip) => textOf(chips, chip));
        return `${text}: ${inside.join('; ')}`;
      })
      .join('\n'),
  }),
};
