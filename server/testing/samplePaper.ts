import type { Sample } from '../../core/kinds/contract';
import { kindNames, type KindName } from '../../core/kinds/kindNames';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { keyKindOf } from '../../core/kinds/keyKinds';
import { sumMarks } from '../../core/marks';
import { storeResponse, type StoredResponse } from '../../core/kinds/stored';
import type { FullPaper } from '../../core/papers/paper';
import { paperOfDraft, type ItemDraft } from '../papers/drafts';

const modules = import.meta.glob<{ samples: Sample<unknown, unknown, unknown>[] }>(
  '../../core/kinds/*/samples.ts',
  {
    eager: true,
  },
);

/** The first sample of a kind whose best answer is whole by itself, without files that would have to come. */
export const sampleOf = (kind: KindName): Sample<unknown, unknown, unknown> =>
  modules[`../../core/kinds/${kind}/samples.ts`]!.samples.find(
    ({ best }) => candidateKindOf(kind).files(best).length === 0,
  )!;

const componentsOf = (kind: KindName) =>
  keyKindOf(kind).components(sampleOf(kind).content, sampleOf(kind).marks);

/** Do people mark anything of the sample of a kind? */
export const isReadByPeople = (kind: KindName): boolean => componentsOf(kind).some((c) => c.by === 'people');

/** Do people mark all of it? */
export const isMarkedByPeople = (kind: KindName): boolean =>
  componentsOf(kind).every((c) => c.by === 'people');

/** What the machine gives the best answer to the sample of a kind. */
export const machineMarks = (kind: KindName): number =>
  sumMarks(componentsOf(kind).flatMap((c) => (c.by === 'machine' ? [c.of] : [])));

/** The sample's best answer, as the journal holds it. */
export const bestOf = (kind: KindName): StoredResponse => storeResponse(kind, sampleOf(kind).best);

const itemOf = (kind: KindName): ItemDraft => ({
  key: `the-${kind}`,
  version: 1,
  title: `A ${kind}`,
  source: null,
  parts: [
    {
      key: 'A',
      kind,
      marks: sampleOf(kind).marks,
      minutes: null,
      prompt: `Answer this ${kind}.`,
      content: sampleOf(kind).content,
    },
  ],
});

/** A paper with one item of every kind there is, made of the kinds' own samples. */
export function samplePaper(): FullPaper {
  const bank = kindNames.map(itemOf);
  return paperOfDraft({
    key: 'sample-paper',
    version: 1,
    title: 'One of each',
    cover: 'One question of each kind.',
    minutes: 30,
    warningMinutes: [15, 5],
    sections: [
      {
        key: 'A',
        title: 'All kinds',
        introduction: '',
        minutes: null,
        items: bank.map(({ key, version }) => ({ key, version })),
      },
    ],
    bands: [{ title: 'Sat', from: 0 }],
    showRightAnswers: false,
    rules: {
      version: '1',
      text: 'Be honest.',
      statements: [{ key: 'honest', text: 'I am honest.' }],
    },
    bank,
  });
}
