import { once } from 'node:events';
import { createServer, request, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Random } from '../../core/random';

export interface FaultCounts {
  passed: number;
  delayed: number;
  droppedBefore: number;
  cutUpload: number;
  cutAnswer: number;
  repeated: number;
}

const LONGEST_DELAY_MS = 400;

interface Answer {
  readonly status: number;
  readonly headers: IncomingMessage['headers'];
  readonly body: Buffer;
}

const bodyOf = async (message: IncomingMessage): Promise<Buffer> => {
  const chunks: Buffer[] = [];
  for await (const chunk of message) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
};

/**
 * A bad network between devices and the server: requests are delayed (so that they overtake one another), dropped,
 * repeated, cut in the middle of their body; answers are cut, so that what was kept is not known to be.
 */
export class FaultProxy {
  readonly counts: FaultCounts = {
    passed: 0,
    delayed: 0,
    droppedBefore: 0,
    cutUpload: 0,
    cutAnswer: 0,
    repeated: 0,
  };
  /** When false everything passes. */
  bad = true;
  private readonly server: Server;
  private readonly port: number;
  private readonly random: Random;

  private constructor(target: string, random: Random) {
    this.port = Number(new URL(target).port);
    this.random = random;
    this.server = createServer((incoming, outgoing) => {
      this.handle(incoming, outgoing).catch(() => outgoing.destroy());
    });
  }

  static async open(target: string, random: Random): Promise<{ proxy: FaultProxy; url: string }> {
    const proxy = new FaultProxy(target, random);
    proxy.server.listen(0, '127.0.0.1');
    await once(proxy.server, 'listening');
    return { proxy, url: `http://127.0.0.1:${(proxy.server.address() as AddressInfo).port}` };
  }

  close(): void {
    this.server.close();
    this.server.closeAllConnections();
  }

  private async handle(incoming: IncomingMessage, outgoing: ServerResponse): Promise<void> {
    const body = await bodyOf(incoming);
    const luck = this.bad ? this.random() : 1;
    if (luck < 0.5 && this.bad) {
      this.counts.delayed++;
      await new Promise((go) => setTimeout(go, this.random() * LONGEST_DELAY_MS));
    }
    const fate = this.bad ? this.random() : 1;
    if (fate < 0.08) {
      this.counts.droppedBefore++;
      outgoing.destroy();
      return;
    }
    if (fate < 0.16) {
      this.counts.cutUpload++;
      this.cutUpload(incoming, body);
      outgoing.destroy();
      return;
    }
    const answer = await this.forward(incoming, body);
    if (fate < 0.24) {
      this.counts.cutAnswer++;
      outgoing.writeHead(answer.status, answer.headers);
      outgoing.write(answer.body.subarray(0, answer.body.length / 2));
      outgoing.destroy();
      return;
    }
    if (fate < 0.34) {
      this.counts.repeated++;
      // Again, later, as if a node on the way had held a copy back.
      const later = this.random() * 2 * LONGEST_DELAY_MS;
      setTimeout(() => void this.forward(incoming, body).catch(() => undefined), later);
    }
    this.counts.passed++;
    outgoing.writeHead(answer.status, answer.headers).end(answer.body);
  }

  private options({ method, url, headers }: IncomingMessage) {
    return { host: '127.0.0.1', port: this.port, method, path: url, headers, agent: false as const };
  }

  private forward(incoming: IncomingMessage, body: Buffer): Promise<Answer> {
    return new Promise((resolve, reject) => {
      const outward = request(this.options(incoming), (answer) => {
        bodyOf(answer).then(
          (bytes) => resolve({ status: answer.statusCode!, headers: answer.headers, body: bytes }),
          reject,
        );
      });
      outward.on('error', reject);
      outward.end(body);
    });
  }

  private cutUpload(incoming: IncomingMessage, body: Buffer): void {
    const outward = request(this.options(incoming));
    outward.on('error', () => undefined);
    outward.write(body.subarray(0, body.length / 2));
    setTimeout(() => outward.destroy(), 20);
  }
}
