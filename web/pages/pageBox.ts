import { PAGE_PART_BYTES, type Page, type PagePartReply, type PageState } from '../../core/files/pages';
import { ApiProblem } from '../api/client';
import { retryAfterMs } from '../api/retryAfterMs';
import type { PageFile } from './pageFile';
import { dropStoredPage, keepStoredPage, storedPages } from './pageStore';

/** How pages travel between this device and the server. */
export interface PageLine {
  /** Says that there is a page before its bytes go; where the server has to know of it first. */
  readonly announce?: (page: Page) => Promise<void>;
  readonly put: (page: Page, from: number, part: Blob) => Promise<PagePartReply>;
  /** What people see of a page; null where the server does not have it. */
  readonly get: (page: Page) => Promise<Blob | null>;
  /** After a refusal: whether it can be tried again. */
  readonly remedy: (problem: ApiProblem) => Promise<boolean>;
}

export type PageStanding =
  | { readonly at: 'here' }
  | { readonly at: 'sending'; readonly share: number }
  /** Kept on this device, without a connection. */
  | { readonly at: 'waiting' }
  /** On its way from another device. */
  | { readonly at: 'elsewhere' }
  | { readonly at: 'unreadable' }
  /** The server does not take it any more. */
  | { readonly at: 'refused' }
  /** In a rehearsal: nothing is sent. */
  | { readonly at: 'kept' };

interface Held {
  readonly page: Page;
  readonly blob: Blob;
  announced: boolean;
  sent: number;
  state: PageState | 'refused' | null;
}

const open = ({ state }: Held): boolean => state === null || state === 'partly';

interface Parts {
  readonly owner: string;
  readonly link: string;
  readonly line: PageLine;
}

/**
 * The pages of a sitting, or of a joined phone, on this device: kept until the server has them, and sent in parts, one
 * page after the other, again and again until all is there. Without parts (a rehearsal) it only keeps them in memory.
 */
export class PageBox {
  private readonly parts: Parts | null;
  private readonly held = new Map<string, Held>();
  private readonly listeners = new Set<() => void>();
  private states: Readonly<Record<string, PageState>> = {};
  private running = false;
  private failures = 0;
  private wait: { readonly timer: ReturnType<typeof setTimeout>; readonly go: () => void } | null = null;
  /** The test is handed in: what the server has needs no place here. */
  private over = false;
  /** Counts changes, for whoever draws. */
  version = 0;

  constructor(parts: Parts | null) {
    this.parts = parts;
  }

  subscribe = (changed: () => void): (() => void) => {
    this.listeners.add(changed);
    return () => this.listeners.delete(changed);
  };

  /** Takes up what an earlier page of this browser has kept. */
  async begin(): Promise<void> {
    if (this.parts)
      for (const { page, bytes } of await storedPages(this.parts.owner))
        if (!this.held.has(page.hash)) this.hold(page, new Blob([bytes], { type: page.type }));
    this.changed();
    void this.run();
  }

  /** Keeps a page and begins to send it. False: it is in memory alone, and lost if the page is closed. */
  async keep({ page, blob }: PageFile): Promise<boolean> {
    if (!this.held.has(page.hash)) this.hold(page, blob);
    this.changed();
    if (!this.parts) return true;
    const { owner, link } = this.parts;
    const durable = await keepStoredPage({ owner, link, page, bytes: await blob.arrayBuffer() });
    void this.run();
    return durable;
  }

  /** The picture or document of a page; null where neither this device nor the server has it. */
  async load(page: Page): Promise<Blob | null> {
    return this.held.get(page.hash)?.blob ?? (await this.parts?.line.get(page)) ?? null;
  }

  /** What the server has, as it says itself. */
  takeStates(states: Readonly<Record<string, PageState>>): void {
    this.states = states;
    this.changed();
  }

  standing({ hash }: Page): PageStanding {
    const own = this.held.get(hash);
    if (!this.parts) return { at: 'kept' };
    const state = own?.state ?? this.states[hash] ?? null;
    if (state === 'here' || state === 'unreadable' || state === 'refused') return { at: state };
    if (!own) return { at: 'elsewhere' };
    return this.failures > 0 ? { at: 'waiting' } : { at: 'sending', share: own.sent / own.page.bytes };
  }

  /** What is on this device, in the order in which it was added. */
  get pages(): readonly Page[] {
    return [...this.held.values()].map(({ page }) => page);
  }

  /** How many pages the server has yet to get from this device. */
  get unsent(): number {
    return [...this.held.values()].filter(open).length;
  }

  /** After the hand-in: what is sent goes from this device, and the rest as soon as it is sent. */
  end(): void {
    this.over = true;
    for (const held of this.held.values()) this.dropIfDone(held);
    void this.run();
  }

  /** Tries at once, whatever the wait. */
  wake(): void {
    this.wait?.go();
    void this.run();
  }

  private hold(page: Page, blob: Blob): void {
    this.held.set(page.hash, { page, blob, announced: false, sent: 0, state: null });
  }

  private changed(): void {
    this.version += 1;
    for (const listener of this.listeners) listener();
  }

  private async run(): Promise<void> {
    if (this.running || !this.parts) return;
    this.running = true;
    for (;;) {
      const next = [...this.held.values()].find(open);
      if (!next) break;
      try {
        await this.send(next, this.parts.line);
        this.failures = 0;
      } catch (error) {
        if (!(await this.goesOn(next, error, this.parts.line))) continue;
        this.failures += 1;
        this.changed();
        await this.pause();
      }
    }
    this.running = false;
  }

  private async send(held: Held, line: PageLine): Promise<void> {
    const { page, blob, sent } = held;
    if (!held.announced) await line.announce?.(page);
    held.announced = true;
    const reply = await line.put(page, sent, blob.slice(sent, sent + PAGE_PART_BYTES));
    held.sent = reply.held;
    held.state = reply.state;
    this.dropIfDone(held);
    this.changed();
  }

  /** Whether a failure is one to wait after; a page that is refused for good stands in nobody's way. */
  private async goesOn(held: Held, error: unknown, line: PageLine): Promise<boolean> {
    if (!(error instanceof ApiProblem) || error.status === 0 || error.status === 429 || error.status >= 500)
      return true;
    if (await line.remedy(error)) return true;
    held.state = 'refused';
    this.dropIfDone(held);
    this.changed();
    return false;
  }

  private dropIfDone(held: Held): void {
    if (this.over && this.parts && !open(held)) void dropStoredPage(this.parts.owner, held.page.hash);
  }

  private pause(): Promise<void> {
    return new Promise((resolve) => {
      const go = () => {
        clearTimeout(this.wait?.timer);
        this.wait = null;
        resolve();
      };
      this.wait = { go, timer: setTimeout(go, retryAfterMs(this.failures, Math.random())) };
    });
  }
}
