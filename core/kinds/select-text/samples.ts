import type { Document } from '../../documents/document';
import { shuffled } from '../../random';
import type { Sample } from '../contract';
import type { Entry } from '../shared/entries';
import type { SelectTextAsked, SelectTextKey } from './content';
import type { SelectTextResponse } from './response';

const phrases = (of: readonly (readonly [string, string])[]): Entry[] =>
  of.map(([key, text]) => ({ key, text }));

const passage = (entries: readonly Entry[]): Document => ({
  format: 1,
  blocks: [
    {
      type: 'paragraph',
      children: entries.flatMap(({ key, text }) => [
        { type: 'phrase' as const, key, children: [{ type: 'text' as const, text }] },
        { type: 'text' as const, text: ' ' },
      ]),
    },
  ],
});

const cause = phrases([
  ['alarm', 'The alarm rang at the desk only.'],
  ['cooler', 'The cooler took over at four.'],
  ['lots', 'Two lots had been moved.'],
]);
const effect = phrases([
  ['bay', 'The bay stood at eleven degrees.'],
  ['door', 'The door was shut.'],
]);
const asked = (limits: readonly (number | null)[]): SelectTextAsked => ({
  passages: [
    { key: 'cause', title: 'Cause', body: passage(cause), limit: limits[0]!, phrases: cause },
    { key: 'effect', title: 'Effect', body: passage(effect), limit: limits[1]!, phrases: effect },
  ],
});

export const samples: Sample<SelectTextAsked, SelectTextKey, SelectTextResponse>[] = [
  {
    title: 'one in each passage',
    content: { asked: asked([1, 1]), key: { right: ['alarm', 'bay'] } },
    marks: 201,
    best: { chosen: ['bay', 'alarm'] },
    partly: { chosen: ['alarm', 'door'] },
    wrong: { chosen: ['lots', 'door'] },
    misfit: { chosen: ['alarm', 'cooler'] },
    randomResponse: (random) => ({
      chosen: [cause, effect].flatMap((some) =>
        random() < 0.8 ? [some[Math.floor(random() * some.length)]!.key] : [],
      ),
    }),
    secrets: ['"right":["alarm","bay"]'],
  },
  {
    title: 'as many as fit',
    content: { asked: asked([null, null]), key: { right: ['alarm', 'cooler', 'bay'] } },
    marks: 400,
    best: { chosen: ['alarm', 'cooler', 'bay'] },
    partly: { chosen: ['alarm', 'bay', 'door'] },
    wrong: { chosen: ['lots'] },
    misfit: { chosen: ['tray'] },
    randomResponse: (random) => ({
      chosen: shuffled([...cause, ...effect], random)
        .slice(0, Math.floor(random() * 6))
        .map(({ key }) => key),
    }),
    secrets: ['"right":["alarm","cooler","bay"]'],
  },
];
