import { describe, expect, it } from 'vitest';
import type { EngineReply } from './engine';
import { outcomeOf, VALUE_BYTES } from './outcomeOf';

const said = (reply: string, more: Partial<EngineReply> = {}): EngineReply => ({
  limit: 'none',
  cpuMs: 5,
  memoryBytes: 0,
  printed: '',
  reply,
  ...more,
});
const ends = (reply: EngineReply, limitMs = 100) => outcomeOf('a', reply, limitMs);

describe('what a case came to', () => {
  it('is the value, the fault with the program’s words and line, or the limit that was met', () => {
    expect(ends(said('{"value":["l",["i","1"],"é"]}'))).toMatchObject({
      result: 'returned',
      value: ['l', ['i', '1'], 'é'],
      milliseconds: 5,
    });
    expect(
      ends(said('{"fault":"thrown","text":"E: x","at":[{"file":"a.py","line":3,"in":"f"}]}')),
    ).toMatchObject({
      result: 'error',
      fault: 'thrown',
      text: 'E: x',
      at: [{ file: 'a.py', line: 3, in: 'f' }],
    });
    expect(ends(said('{"memory":true}')).result).toBe('too-much-memory');
    for (const [limit, result] of [
      ['time', 'too-slow'],
      ['memory', 'too-much-memory'],
      ['output', 'too-much-output'],
    ] as const)
      expect(ends(said('{"value":true}', { limit })).result).toBe(result);
  });

  it('follows processor time: what was returned beyond the limit is too slow, at the limit it is not', () => {
    expect(ends(said('{"value":true}', { cpuMs: 100 })).result).toBe('returned');
    expect(ends(said('{"value":true}', { cpuMs: 100.1 })).result).toBe('too-slow');
  });

  it.each([
    'accepted',
    '{"value":1',
    '{"value":true,"accepted":true}',
    '[{"value":true}]',
    'null',
    '"value"',
    '{"memory":1}',
    '{"fault":"accepted","text":"","at":[]}',
    '{"fault":"thrown","text":{},"at":[]}',
    '{"fault":"thrown","text":"","at":[],"value":true}',
    '{"__proto__":{"value":true}}',
    '{"value":1}',
    '{"value":["i","1.5"]}',
    '{"value":["x"]}',
    '{"value":["m","a"]}',
    '{"fault":"thrown","text":"","at":{}}',
  ])('of another shape than the one allowed is a fault: %s', (reply) => {
    expect(ends(said(reply))).toMatchObject({ result: 'error', fault: 'disturbed' });
  });

  it('is too much output before anything is parsed: long, deep, or of many values', () => {
    const long = `{"value":"${'x'.repeat(VALUE_BYTES)}"}`;
    const deep = `{"value":${'["l",'.repeat(501)}0${']'.repeat(501)}}`;
    const many = `{"value":["l",${'"",'.repeat(150_001)}""]}`;
    for (const reply of [long, deep, many]) expect(ends(said(reply)).result).toBe('too-much-output');
    // Brackets and commas within a text are none.
    const text = '[,{'.repeat(20_000);
    expect(ends(said(JSON.stringify({ value: text })))).toMatchObject({ result: 'returned', value: text });
    const quoted = `\\"${'['.repeat(1000)}`;
    expect(ends(said(JSON.stringify({ value: quoted })))).toMatchObject({ value: quoted });
  });

  it('keeps no more of what was printed or said than is shown', () => {
    expect(ends(said('{"value":true}', { printed: 'x'.repeat(9000) })).printed).toHaveLength(2000);
    const outcome = ends(
      said(
        JSON.stringify({
          fault: 'thrown',
          text: 'x'.repeat(9000),
          at: [{ file: 'a.py', line: 1.5, in: '' }],
        }),
      ),
    );
    expect(outcome).toMatchObject({ text: 'x'.repeat(400), at: [] });
  });
});
