import * as v from 'valibot';
import type { Sample } from '../../core/kinds/contract';
import { kindNames, type KindName } from '../../core/kinds/registry';
import { itemSchema, paperSchema, type FullPaper, type Item } from '../../core/papers/paper';

const modules = import.meta.glob<{ samples: Sample<unknown, unknown>[] }>('../../core/kinds/*/samples.ts', {
  eager: true,
});

export const sampleOf = (kind: KindName): Sample<unknown, unknown> =>
  modules[`../../core/kinds/${kind}/samples.ts`]!.samples[0]!;

const itemOf = (kind: KindName): Item =>
  v.parse(itemSchema, {
    key: `the-${kind}`,
    version: 1,
    title: `A ${kind}`,
    source: null,
    parts: [
      {
        key: 'A',
        kind,
        marks: sampleOf(kind).maximum,
        minutes: null,
        prompt: `Answer this ${kind}.`,
        content: sampleOf(kind).content,
      },
    ],
  });

/** A paper with one item of every kind there is, made of the kinds' own samples. */
export function samplePaper(): FullPaper {
  const bank = kindNames.map(itemOf);
  const paper = v.parse(paperSchema, {
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
  });
  return { ...paper, bank };
}
