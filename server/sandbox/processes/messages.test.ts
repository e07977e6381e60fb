import { describe, expect, it } from 'vitest';
import { readControl } from './messages';

const ended = { is: 'ended', slot: 0, status: 0, cpuMs: 1.5, stopped: null, marker: 'ab' };

describe('a line of the control channel', () => {
  it.each([
    { is: 'ready' },
    { is: 'failed', trouble: 'no memory' },
    { is: 'refused', slot: 1 },
    ended,
    { ...ended, stopped: 'wall' },
  ])('is read where it has its shape: %j', (message) => {
    expect(readControl(JSON.stringify(message))).toEqual(message);
  });

  it.each([
    'nothing',
    'null',
    '[]',
    '{}',
    '{"is":"accepted"}',
    '{"is":"failed","trouble":{}}',
    '{"is":"refused","slot":"0"}',
    JSON.stringify({ ...ended, status: '0' }),
    JSON.stringify({ ...ended, cpuMs: null }),
    JSON.stringify({ ...ended, stopped: 'passed' }),
    JSON.stringify({ ...ended, marker: 7 }),
  ])('is nothing otherwise: %s', (line) => {
    expect(readControl(line)).toBeNull();
  });
});
