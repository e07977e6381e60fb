import { describe, expect, it } from 'vitest';
import { readingPaper } from '../../demo/readingPaper';
import { drawForm, wholeForm } from '../forms/drawForm';
import { adaptiveViews } from './adaptiveApi';
import { issuesOfAdaptive } from './adaptiveIssues';
import { poolOf } from './adaptivePool';
import {
  marksOfPaper,
  minutesOfItem,
  type AdaptiveSection,
  type FullPaper,
  type Item,
  type Section,
} from './paper';

const paper = readingPaper();
const [section] = paper.sections;
const rules = section!.adaptive!;

const withSection = (change: Partial<Section>): FullPaper => ({
  ...paper,
  sections: [{ ...section!, ...change }],
});
const withRules = (change: Partial<AdaptiveSection>) => withSection({ adaptive: { ...rules, ...change } });
const withItem = (change: (item: Item) => Item): FullPaper => ({
  ...paper,
  bank: paper.bank.map((item, i) => (i === 0 ? change(item) : item)),
});
const withPart = (change: Partial<Item['parts'][number]>) =>
  withItem((item) => ({ ...item, parts: [{ ...item.parts[0]!, ...change }] }));

describe('what stands in the way of an adaptive section', () => {
  it('is nothing in the demo', () => expect(issuesOfAdaptive(paper)).toEqual([]));

  it.each<[string, FullPaper, string[], string]>([
    [
      'moving freely',
      withSection({ navigation: 'free' }),
      ['section.adaptiveForward'],
      'sections.0.navigation',
    ],
    ['no end in time', withSection({ minutes: null }), ['section.adaptiveMinutes'], 'sections.0.minutes'],
    ['another order', withSection({ shuffled: true }), ['section.adaptiveDraws'], 'sections.0'],
    [
      'lengths the wrong way round',
      withRules({ leastLength: 25 }),
      ['section.lengths'],
      'sections.0.adaptive.leastLength',
    ],
    [
      'a short pool',
      withRules({ greatestLength: 41 }),
      ['section.poolShort'],
      'sections.0.adaptive.greatestLength',
    ],
    // 24 of 0.5 need 48 questions, or the limit cannot hold for everybody.
    [
      'a tight limit',
      withRules({ exposureLimit: 0.5 }),
      ['section.exposure'],
      'sections.0.adaptive.exposureLimit',
    ],
    [
      'levels that fall',
      withRules({ levels: ['A', 'B', 'C'].map((title, i) => ({ title, from: 500 - i })) }),
      ['section.levels'],
      'sections.0.adaptive.levels',
    ],
    [
      'shares of 90 %',
      withRules({ topics: rules.topics.map((one, i) => (i === 0 ? { ...one, share: 0.24 } : one)) }),
      ['section.shares'],
      'sections.0.adaptive.topics',
    ],
    ['no measures', withItem((item) => ({ ...item, measures: undefined })), ['section.noMeasures'], 'bank.0'],
    [
      'another topic',
      withItem((item) => ({ ...item, measures: { ...item.measures!, topic: 'Spelling' } })),
      ['section.noTopic'],
      'bank.0.measures.topic',
    ],
    [
      'two marks with one threshold',
      withPart({ marks: 200 }),
      ['section.thresholds'],
      'bank.0.measures.calibration.thresholds',
    ],
    // 1.5 marks are one step, as there is one threshold.
    ['half a mark', withPart({ marks: 150 }), ['section.wholeMarks'], 'bank.0.parts.0.marks'],
  ])('%s', (_, of, codes, path) => {
    const found = issuesOfAdaptive(of);
    expect(found.map(({ message }) => message.code)).toEqual(codes);
    expect(found[0]!.path.join('.')).toBe(path);
  });

  it('a topic that is named twice, and one with too few questions', () => {
    const topics = [...rules.topics.slice(0, 2), { topic: rules.topics[0]!.topic, share: 0.33 }];
    const codes = issuesOfAdaptive(withRules({ topics })).map(({ message }) => message.code);
    expect(codes).toContain('section.topicTwice');
    const one = [
      { ...rules.topics[0]!, share: 0.9 },
      ...rules.topics.slice(1).map((t) => ({ ...t, share: 0.05 })),
    ];
    // 0.9 × 24 = 21.6; the pool has 14 of the topic.
    expect(issuesOfAdaptive(withRules({ topics: one }))).toEqual([
      expect.objectContaining({
        severity: 'advice',
        message: {
          code: 'section.fewOfTopic',
          values: { topic: 'Finding facts', has: 14, wanted: 21 },
        },
      }),
    ]);
  });
});

describe('the pool of a section', () => {
  it('asks questions of one text together, with a threshold for each mark', () => {
    const pool = poolOf(paper, section!);
    expect(pool.flatMap(({ topics }) => topics)).toHaveLength(40);
    const salt = pool.find(({ key }) => key === 'salt-week-one')!;
    expect(salt.topics).toHaveLength(3);
    expect(salt.parameters.thresholds).toHaveLength(3);
    expect(pool.filter(({ topics }) => topics.length > 1)).toHaveLength(3);
  });

  it('takes the author’s estimate where nothing is calibrated, each mark as hard, and then reports no level', () => {
    const of = withItem((item) => ({
      ...item,
      source: null,
      measures: { ...item.measures!, difficulty: 5, calibration: null },
      parts: [{ ...item.parts[0]!, marks: 200 }],
    }));
    expect(poolOf(of, of.sections[0]!)[0]!.parameters).toEqual({ a: 1, thresholds: [2, 2] });
    expect(adaptiveViews(paper)[0]).toMatchObject({ calibratedOn: 1000, estimated: 0, questions: 40 });
    expect(adaptiveViews(of)[0]).toMatchObject({ calibratedOn: 0, estimated: 1 });
  });

  it('has no share in the marks of the paper, and its questions take their minutes', () => {
    expect(marksOfPaper(paper)).toBe(0);
    expect(wholeForm(paper).paper.marks).toBe(0);
    const bare = withPart({ minutes: null });
    // 30 minutes for 40 questions, where marks do not tell.
    expect(minutesOfItem(bare.bank[0]!, bare)).toBe(0.75);
  });

  it('tells candidates neither difficulty, nor topics, nor the rules', () => {
    const form = drawForm(paper, { seed: 'one', locale: 'en', transcripts: false, aids: [] });
    const copy = JSON.stringify(form.paper);
    for (const secret of ['measures', 'thresholds', 'difficulty', 'calibration', 'Finding facts', 'exposure'])
      expect(copy).not.toContain(secret);
  });
});
