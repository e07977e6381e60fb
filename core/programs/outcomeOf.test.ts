import { describe, expect, it } from 'vitest';
import type { EngineReply } from './engine';
import { outcomeOf, VALUE_BYTES } from './outcomeOf';

const said = (reply: string, more: Partial<EngineReply> = {}): EngineReply => ({
  limit: 'none',
  cpuMs: 5,
  printed: '',
  reply,
  ...more,
});
const ends = (reply: EngineReply, limitMs = 100) => outcomeOf('a', reply, limitMs);

describe('what a case came to', () => {
  it('is the value, the fault with the program’s words and line, or the limit that was met', () => {
    expect(ends(said('{"value":[1,"é"]}'))).toMatchObject({
      result: 'returned',
      value: [1, 'é'],
      milliseconds: 5,
    });
    expect(ends(said('{"fault":"thrown","text":"E: x","line":3}'))).toMatchObject({
      result: 'error',
      fault: 'thrown',
      text: 'E: x',
      line: 3,
    });
    expect(ends(said('{"memory":true}')).result).toBe('too-much-memory');
    for (const [limit, result] of [
      ['time', 'too-slow'],
      ['memory', 'too-much-memory'],
      ['output', 'too-much-output'],
    ] as const)
      expect(ends(said('{"value":1}', { limit })).result).toBe(result);
  });

  it('follows processor time: what was returned beyond the limit is too slow, at the limit it is not', () => {
    expect(ends(said('{"value":1}', { cpuMs: 100 })).result).toBe('returned');
    expect(ends(said('{"value":1}', { cpuMs: 100.1 })).result).toBe('too-slow');
  });

  it.each([
    'accepted',
    '{"value":1',
    '{"value":1,"accepted":true}',
    '[{"value":1}]',
    'null',
    '"value"',
    '{"memory":1}',
    '{"fault":"accepted","text":"","line":null}',
    '{"fault":"thrown","text":{},"line":null}',
    '{"fault":"thrown","text":"","line":null,"value":1}',
    '{"__proto__":{"value":1}}',
  ])('of another shape than the one allowed is a fault: %s', (reply) => {
    expect(ends(said(reply))).toMatchObject({ result: 'error', fault: 'disturbed' });
  });

  it('is too much output before anything is parsed: long, deep, or of many values', () => {
    const long = `{"value":"${'x'.repeat(VALUE_BYTES)}"}`;
    const deep = `{"value":${'['.repeat(501)}${']'.repeat(501)}}`;
    const many = `{"value":[${'0,'.repeat(50_001)}0]}`;
    for (const reply of [long, deep, many]) expect(ends(said(reply)).result).toBe('too-much-output');
    // Brackets and commas within a text are none.
    const text = '[,{'.repeat(20_000);
    expect(ends(said(JSON.stringify({ value: text })))).toMatchObject({ result: 'returned', value: text });
    const quoted = `\\"${'['.repeat(1000)}`;
    expect(ends(said(JSON.stringify({ value: quoted })))).toMatchObject({ value: quoted });
  });

  it('keeps no more of what was printed or said than is shown', () => {
    expect(ends(said('{"value":1}', { printed: 'x'.repeat(9000) })).printed).toHaveLength(2000);
    const outcome = ends(said(JSON.stringify({ fault: 'thrown', text: 'x'.repeat(9000), line: 1.5 })));
    expect(outcome).toMatchObject({ text: 'x'.repeat(400), line: null });
  });
});
