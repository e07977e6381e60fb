import { expect, type Page } from '@playwright/test';
import type { Entry } from '../../core/journal/entry';
import { HoldWriter } from '../../core/journal/holdWriter';
import type { JournalKept } from '../../core/sittings/api';
import { sha256 } from '../../server/secrets';
import type { TestApp } from '../testApp';

/** A client that is not the desk: it goes on in the hold of a page that was closed, and writes when it likes. */
export class ForgedClient {
  private readonly page: Page;
  private readonly url: string;
  private readonly writer: HoldWriter;
  heard = 0;

  constructor(page: Page, app: TestApp) {
    [this.page, this.url] = [page, app.url];
    const [hold] = app.rows<{ number: number; token: string; whole: number; chain: string }>(
      'select number, token, whole, chain from holds order by sitting_id desc, number desc limit 1',
    );
    const { number, token, whole, chain } = hold!;
    this.writer = new HoldWriter({ hold: number, token }, sha256, { number: whole, chain });
  }

  async says(entries: readonly Omit<Entry, 'number'>[], route = 'journal', more = {}): Promise<JournalKept> {
    const numbered = entries.map((entry) => this.writer.append(entry));
    const head = this.writer.head(this.heard);
    const data = { head, opening: 'a-forged-client', entries: numbered, ...more };
    const answer = await this.page.request.post(`${this.url}/api/sitting/${route}`, { data });
    expect(answer.ok(), await answer.text()).toBe(true);
    const kept = (await answer.json()) as JournalKept;
    this.heard = kept.now;
    return kept;
  }
}
