import { describe, expect, it } from 'vitest';
import type { EngineReply } from '../../../core/programs/engine';
import { seededRandom } from '../../../core/random';
import { encodeFrame, FrameReader } from './frames';

const reply: EngineReply = {
  limit: 'none',
  cpuMs: 12.5,
  memoryBytes: 4096,
  printed: 'é\n',
  reply: '{"value":"𝄞"}',
};
const read = (bytes: Buffer, most: number, piece = bytes.length): FrameReader => {
  const reader = new FrameReader(most);
  for (let at = 0; at < bytes.length; at += piece) reader.push(bytes.subarray(at, at + piece));
  return reader;
};

describe('frames', () => {
  it('come back as they were, in pieces of any length', () => {
    const second = { ...reply, limit: 'memory' as const, printed: '', reply: '' };
    const bytes = Buffer.concat([reply, second].map(encodeFrame));
    for (const piece of [1, 7, bytes.length])
      expect(read(bytes, 2, piece)).toMatchObject({ replies: [reply, second], bad: false });
  });

  it('that end early are no replies; those before them are', () => {
    const bytes = Buffer.concat([encodeFrame(reply), encodeFrame(reply).subarray(0, 20)]);
    expect(read(bytes, 2)).toMatchObject({ replies: [reply], bad: false });
  });

  it.each([
    ['more frames than were asked for', Buffer.concat([encodeFrame(reply), encodeFrame(reply)])],
    ['a limit that there is not', Buffer.concat([Buffer.from([9]), encodeFrame(reply).subarray(1)])],
    ['a length of 4 GB', Buffer.concat([encodeFrame(reply).subarray(0, 17), Buffer.alloc(8, 255)])],
    ['a time that is none', Buffer.concat([Buffer.from([0]), Buffer.alloc(40, 255)])],
  ])('are not read any further at %s', (_, bytes) => {
    const reader = read(bytes, 1);
    expect(reader.bad).toBe(true);
    reader.push(encodeFrame(reply));
    expect(reader.replies.length).toBeLessThanOrEqual(1);
  });

  it('made of noise never hold more than was asked for', () => {
    const random = seededRandom('frames');
    for (let n = 0; n < 300; n++) {
      const noise = Buffer.from(Array.from({ length: 200 }, () => (random() < 0.7 ? 0 : random() * 256)));
      expect(read(noise, 3, 50).replies.length).toBeLessThanOrEqual(3);
    }
  });
});
