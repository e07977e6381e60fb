import { describe, expect, it } from 'vitest';
import { MisshapenError } from '../validation/shapes';
import { readContent } from './authoring';
import { candidateKindOf, type AnyCandidateKind } from './candidateKindOf';
import { keyKindOf, type AnyKeyKind } from './keyKinds';
import { checkedOrEmpty, readResponse } from './readResponse';
import { openStored } from './stored';
import contentOfVersion1 from './stored/content-1.json';
import responseOfVersion1 from './stored/response-1.json';

/*
 * Every kind is at its first version. The stored documents are of a figure as it was kept before content and key were
 * apart, and before an answer said how it was typed; a kind with one version more reads them.
 */
const newerContent: AnyKeyKind = {
  ...keyKindOf('number'),
  contentVersion: 2,
  upgradeContent(stored, from) {
    expect(from).toBe(1);
    const { figure, within, unit } = stored as { figure: string; within: string; unit: string };
    return {
      asked: {
        before: '',
        unit,
        unitSynonyms: [],
        minusPossible: figure.startsWith('-'),
        scientific: false,
        fractions: false,
        demand: null,
      },
      key: {
        tolerance: { by: 'distance', within },
        accepted: [{ figure, percent: 100, note: '' }],
        also: [],
      },
    };
  },
};
const newerResponse: AnyCandidateKind = {
  ...candidateKindOf('number'),
  responseVersion: 2,
  upgradeResponse: (stored) => ({ ...(stored as object), by: 'keyboard' }),
};

describe('stored documents of an older version', () => {
  it('are upgraded on loading: content', () => {
    const content = readContent(newerContent, contentOfVersion1.content, contentOfVersion1.version);
    expect(content).toMatchObject({
      asked: { unit: '°C', minusPossible: true },
      key: { accepted: [{ figure: '-18' }] },
    });
    expect(() => readContent(keyKindOf('number'), contentOfVersion1.content, 2)).toThrow(
      'newer than this program',
    );
    expect(() => readContent(keyKindOf('number'), contentOfVersion1.content, 1)).toThrow(MisshapenError);
  });

  it('are upgraded on loading: responses', () => {
    expect(openStored(newerResponse, responseOfVersion1)).toEqual({
      response: { typed: '-18', by: 'keyboard' },
    });
    expect(readResponse('number', responseOfVersion1)).toEqual({
      response: { typed: '-18' },
    });
  });

  it('that are newer, misshapen or bottomless are no answer, and break nothing', () => {
    let deep: unknown = 'x';
    for (let n = 0; n < 20_000; n++) deep = [deep];
    const shown = {};
    for (const stored of [
      { ...responseOfVersion1, version: 2 },
      { version: 1, response: deep },
      [],
      'x',
      null,
    ])
      expect(checkedOrEmpty('number', shown, stored)).toEqual({ typed: '' });
  });
});
