import { message } from '../../messages/message';
import { shuffled } from '../../random';
import type { Content, Fact, Issue, KeyKind, Place } from '../contract';
import { plainKey } from '../plainKey';
import { hasTwice, inOrderOf, keysOf, textOf } from '../shared/entries';
import { severe } from '../shared/issues';
import { issuesOfPhrases } from '../shared/phrases';
import type { SortArrangement, SortAsked, SortKey } from './content';
import { binsOf, type SortResponse, type SortShown } from './response';
import { chipComponents, isRightChip, scoreSort } from './score';
import { arrangementSchema, askedSchema, keySchema, responseSchema } from './schemas';

type SortContent = Content<SortAsked, SortKey>;

function checkKey({ asked, key }: SortContent): Issue[] {
  const [chips, bins] = [keysOf(asked.chips), keysOf(asked.bins)];
  const issues: Issue[] = [];
  for (const [bin, right] of Object.entries(key.bins)) {
    const path = ['key', 'bins', bin];
    const limit = asked.bins.find((one) => one.key === bin)?.limit ?? null;
    if (!bins.includes(bin)) issues.push(severe(path, message('sort.noBin')));
    if (hasTwice(right) || right.some((chip) => !chips.includes(chip)))
      issues.push(severe(path, message('sort.rightUnknown')));
    if (limit !== null && right.length > limit) issues.push(severe(path, message('sort.overLimit')));
  }
  const placed = Object.values(key.bins).flat();
  if (placed.length === 0) issues.push(severe(['key', 'bins'], message('sort.nothingRight')));
  if (!asked.often && hasTwice(placed)) issues.push(severe(['key', 'bins'], message('sort.rightTwice')));
  if (!asked.leftOver && chips.some((chip) => !placed.includes(chip)))
    issues.push(severe(['asked', 'leftOver'], message('sort.someLeft')));
  return issues;
}

function check(content: SortContent, place: Place): Issue[] {
  const { chips, bins, fromSource } = content.asked;
  const issues = checkKey(content);
  if (hasTwice(keysOf(chips))) issues.push(severe(['asked', 'chips'], message('author.sameKey')));
  if (hasTwice(keysOf(bins))) issues.push(severe(['asked', 'bins'], message('author.sameKey')));
  return fromSource ? [...issues, ...issuesOfPhrases(keysOf(chips), place, ['asked', 'chips'])] : issues;
}

function facts(content: SortContent, response: SortResponse): Fact[] {
  const { chips, bins } = content.asked;
  return chips.flatMap(({ key }): Fact[] => {
    const placed = binsOf(response, key);
    if (placed.length === 0) return [];
    const answer = placed.map((bin) => textOf(bins, bin)).join(', ');
    return [{ component: key, type: 'option', answer, right: isRightChip(content, key, placed) }];
  });
}

export const sortKey: KeyKind<SortAsked, SortKey, SortShown, SortResponse, SortArrangement> = {
  ...plainKey,
  name: 'sort',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  arrangement: arrangementSchema,
  blank: () => ({
    asked: {
      chips: ['a', 'b'].map((key) => ({ key, text: '' })),
      fromSource: false,
      bins: ['x', 'y'].map((key) => ({ key, text: '', limit: null })),
      often: false,
      leftOver: false,
      shuffle: true,
    },
    key: { bins: { x: [], y: [] } },
  }),
  check,
  arrange: ({ asked }, random) => {
    const keys = keysOf(asked.chips);
    return asked.shuffle ? shuffled(keys, random) : keys;
  },
  show: (asked, arrangement) => ({
    chips: inOrderOf(asked.chips, arrangement).map(({ key, text }) => ({ key, text })),
    fromSource: asked.fromSource,
    bins: asked.bins.map(({ key, text, limit }) => ({ key, text, limit })),
    often: asked.often,
    leftOver: asked.leftOver,
  }),
  components: ({ asked }, marks) => chipComponents(asked, marks),
  score: scoreSort,
  rightResponse: ({ key }) => ({
    bins: Object.fromEntries(
      Object.entries(key.bins)
        .filter(([, right]) => right.length > 0)
        .map(([bin, right]) => [bin, [...right]]),
    ),
  }),
  facts: ({ content, response }) => facts(content, response),
};
