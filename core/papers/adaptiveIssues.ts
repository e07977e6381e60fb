import { stepsOf } from './adaptivePool';
import type { Issue } from '../kinds/contract';
import { keyKindOf } from '../kinds/keyKinds';
import { advice, severe } from '../kinds/shared/issues';
import { message } from '../messages/message';
import { itemsOf, type AdaptiveSection, type FullPaper, type Item, type Section } from './paper';

/** Can the machine give all of its marks at once, in whole marks? A program takes too long for that. */
function issuesOfScoring({ parts }: Item, path: Issue['path']): Issue[] {
  return parts.flatMap(({ kind: name, content, marks }, k) => {
    const kind = keyKindOf(name);
    const at = [...path, 'parts', k];
    const byPeople = kind.components(content, marks).some(({ by }) => by === 'people');
    return [
      ...(byPeople || kind.runsPrograms ? [severe([...at, 'kind'], message('section.notByMachine'))] : []),
      ...(marks % 100 === 0 ? [] : [severe([...at, 'marks'], message('section.wholeMarks'))]),
    ];
  });
}

function issuesOfMeasures(item: Item, { topics }: AdaptiveSection, path: Issue['path']): Issue[] {
  const { measures } = item;
  if (!measures) return [severe(path, message('section.noMeasures'))];
  const { topic, calibration } = measures;
  const steps = stepsOf(item);
  const given = calibration?.thresholds.length ?? steps;
  return [
    ...(topics.some((one) => one.topic === topic)
      ? []
      : [severe([...path, 'measures', 'topic'], message('section.noTopic', { topic }))]),
    ...(given === steps
      ? []
      : [
          severe(
            [...path, 'measures', 'calibration', 'thresholds'],
            message('section.thresholds', { given, steps }),
          ),
        ]),
  ];
}

/** More than rounding to hundredths of six topics can make. */
const ROUNDING = 0.03;

function issuesOfTopics({ topics, greatestLength }: AdaptiveSection, items: readonly Item[]): Issue[] {
  const sum = topics.reduce((all, { share }) => all + share, 0);
  const twice = new Set(topics.map(({ topic }) => topic)).size < topics.length;
  return [
    ...(Math.abs(sum - 1) > ROUNDING
      ? [severe(['topics'], message('section.shares', { sum: Math.round(sum * 100) }))]
      : []),
    ...(twice ? [severe(['topics'], message('section.topicTwice'))] : []),
    ...topics.flatMap(({ topic, share }) => {
      const has = items.filter((item) => item.measures?.topic === topic).length;
      const wanted = Math.floor(share * greatestLength);
      return has < wanted ? [advice(['topics'], message('section.fewOfTopic', { topic, has, wanted }))] : [];
    }),
  ];
}

function issuesOfLengths(
  { leastLength, greatestLength, exposureLimit }: AdaptiveSection,
  items: readonly Item[],
): Issue[] {
  const enough = Math.ceil(greatestLength / exposureLimit);
  if (leastLength > greatestLength) return [severe(['leastLength'], message('section.lengths'))];
  if (items.length < greatestLength)
    return [
      severe(['greatestLength'], message('section.poolShort', { has: items.length, wanted: greatestLength })),
    ];
  return items.length < enough
    ? [advice(['exposureLimit'], message('section.exposure', { has: items.length, enough }))]
    : [];
}

const issuesOfLevels = ({ levels }: AdaptiveSection): Issue[] =>
  levels.every(({ from }, i) => i < 2 || from > levels[i - 1]!.from)
    ? []
    : [severe(['levels'], message('section.levels'))];

/** What a section that chooses its questions cannot have besides: another order, and no end in time. */
function issuesOfWay({ navigation, shuffled, draws, minutes, items }: Section): Issue[] {
  const drawn =
    shuffled || draws.length > 0 || items.some(({ draw, page }) => draw !== null || page !== null);
  return [
    ...(navigation === 'forward only' ? [] : [severe(['navigation'], message('section.adaptiveForward'))]),
    ...(drawn ? [severe([], message('section.adaptiveDraws'))] : []),
    ...(minutes === null ? [severe(['minutes'], message('section.adaptiveMinutes'))] : []),
  ];
}

/** What is wrong with adaptive sections and the questions of their pools, each with its path in the paper. */
export const issuesOfAdaptive = (paper: FullPaper): Issue[] =>
  paper.sections.flatMap((section, at) => {
    const { adaptive } = section;
    if (!adaptive) return [];
    const items = itemsOf(paper, section);
    const inSection = (issues: readonly Issue[], ...path: Issue['path']) =>
      issues.map((issue) => ({ ...issue, path: ['sections', at, ...path, ...issue.path] }));
    return [
      ...inSection(issuesOfWay(section)),
      ...inSection(
        [
          ...issuesOfLengths(adaptive, items),
          ...issuesOfTopics(adaptive, items),
          ...issuesOfLevels(adaptive),
        ],
        'adaptive',
      ),
      ...items.flatMap((item) => {
        const path = ['bank', paper.bank.indexOf(item)];
        return [...issuesOfMeasures(item, adaptive, path), ...issuesOfScoring(item, path)];
      }),
    ];
  });
