import type { EngineReply } from '../../../core/programs/engine';
import { VALUE_BYTES } from '../../../core/programs/outcomeOf';

const LIMITS: readonly EngineReply['limit'][] = ['none', 'time', 'memory', 'output'];
const HEAD = 25;
const MOST_PRINTED = 16 * 1024;
/** Somewhat more than a value may have, so that one that is too large is told as such. */
const MOST_REPLY = VALUE_BYTES + 1024;

const cut = (text: string, most: number): Buffer => Buffer.from(text, 'utf8').subarray(0, most);

/** A reply as bytes: limit, processor time, memory, the lengths of what was printed and of the reply, and both. */
export function encodeFrame({ limit, cpuMs, memoryBytes, printed, reply }: EngineReply): Buffer {
  const [out, said] = [cut(printed, MOST_PRINTED), cut(reply, MOST_REPLY)];
  const head = Buffer.alloc(HEAD);
  head[0] = LIMITS.indexOf(limit);
  head.writeDoubleLE(cpuMs, 1);
  head.writeDoubleLE(memoryBytes, 9);
  head.writeUInt32LE(out.length, 17);
  head.writeUInt32LE(said.length, 21);
  return Buffer.concat([head, out, said]);
}

/**
 * Reads what a process of the box wrote, and believes none of it: more frames than were asked for, longer ones, or
 * anything else is `bad`, and nothing behind it is read.
 */
export class FrameReader {
  readonly replies: EngineReply[] = [];
  bad = false;
  private rest: Buffer = Buffer.alloc(0);
  private readonly most: number;

  constructor(most: number) {
    this.most = most;
  }

  push(bytes: Buffer): void {
    if (this.bad) return;
    this.rest = this.rest.length > 0 ? Buffer.concat([this.rest, bytes]) : bytes;
    while (this.rest.length >= HEAD && !this.bad) {
      const [printed, reply] = [this.rest.readUInt32LE(17), this.rest.readUInt32LE(21)];
      const limit = LIMITS[this.rest[0]!];
      const cpuMs = this.rest.readDoubleLE(1);
      const memoryBytes = this.rest.readDoubleLE(9);
      const malformed =
        limit === undefined || !(cpuMs >= 0 && cpuMs < 1e9) || !(memoryBytes >= 0 && memoryBytes < 2 ** 40);
      if (malformed || printed > MOST_PRINTED || reply > MOST_REPLY || this.replies.length >= this.most) {
        this.bad = true;
        return;
      }
      const end = HEAD + printed + reply;
      if (this.rest.length < end) return;
      const text = (from: number, to: number) => this.rest.toString('utf8', from, to);
      this.replies.push({
        limit,
        cpuMs,
        memoryBytes,
        printed: text(HEAD, HEAD + printed),
        reply: text(HEAD + printed, end),
      });
      this.rest = this.rest.subarray(end);
    }
    if (this.replies.length === this.most && this.rest.length > 0) this.bad = true;
  }
}

/** More than this cannot belong to `cases` replies. */
export const mostBytes = (cases: number): number => cases * (HEAD + MOST_PRINTED + MOST_REPLY);
