import { describe, expect, it } from 'vitest';
import { plainDocument } from '../../core/documents/document';
import { sampleOf } from '../testing/samplePaper';
import { paperFromDraft } from './drafts';

const part = { key: 'A', kind: 'writing', marks: 100, minutes: null, prompt: 'Write *it*.' };
const { content: written, marks } = sampleOf('writing');

const draft = (change: object = {}, of: object = {}) => ({
  key: 'own',
  version: 1,
  title: 'Own',
  cover: '',
  minutes: 30,
  warningMinutes: [5],
  bands: [],
  sections: [
    {
      key: 'A',
      title: 'All',
      introduction: 'Read **first**.',
      minutes: null,
      items: [{ key: 'it', version: 1 }],
    },
  ],
  showRightAnswers: true,
  rules: { version: '1', text: 'Be honest.', statements: [] },
  bank: [
    {
      key: 'it',
      version: 1,
      title: 'It',
      source: { key: 's', tabs: [{ title: 'T', body: 'Body' }] },
      parts: [{ ...part, marks, content: written, ...of }],
    },
  ],
  ...change,
});
const issuesOf = (made: unknown) => {
  const result = paperFromDraft(made);
  return 'issues' in result ? result.issues : [];
};

describe('a draft of a paper', () => {
  it('becomes a paper with trees for its texts, those of the kinds too', () => {
    const rubric = { ...(written as { key: { rubric: object } }).key.rubric, scheme: 'Both lots.' };
    const made = paperFromDraft(draft({}, { content: { ...(written as object), key: { rubric } } }));
    expect(made).toMatchObject({
      paper: {
        rules: { text: plainDocument('Be honest.') },
        bank: [
          {
            source: { tabs: [{ body: plainDocument('Body') }] },
            parts: [{ version: 1, content: { key: { rubric: { scheme: plainDocument('Both lots.') } } } }],
          },
        ],
      },
    });
  });

  it.each<[string, unknown, (string | number)[], string]>([
    ['nothing at all', null, ['key'], 'author.misshapen'],
    ['a text that cannot be read', draft({ cover: '[a](b)' }), ['cover'], 'document.link'],
    [
      'a prompt that cannot be read',
      draft({}, { prompt: '$\\frac$' }),
      ['bank', 0, 'parts', 0, 'prompt'],
      'document.formulaUnread',
    ],
    ['an unknown kind', draft({}, { kind: 'juggling' }), ['bank', 0, 'parts', 0, 'kind'], 'author.misshapen'],
    [
      'marks that do not add up',
      draft({}, { marks: marks + 1 }),
      ['bank', 0, 'parts', 0, 'content', 'key', 'rubric'],
      'author.rubricSum',
    ],
    ['no parts', draft({ bank: [{ key: 'it' }] }), ['bank', 0, 'version'], 'author.misshapen'],
  ])('tells where %s stands', (_, made, path, code) =>
    expect(issuesOf(made)).toContainEqual(
      expect.objectContaining({ path, message: expect.objectContaining({ code }) as object }),
    ),
  );

  it('tells all that is wrong at once', () =>
    expect(
      issuesOf(draft({ cover: '[a](b)', title: 7 }, { prompt: ':meaning[x]' })).map((i) => i.path),
    ).toEqual([['cover'], ['bank', 0, 'parts', 0, 'prompt'], ['title']]));
});
