import { SMALL_PICTURE } from '../../core/testing/smallPicture';
import { expect, type Locator, type Page } from '@playwright/test';
import type { ArrivalView } from '../../core/arrival/api';

/** A candidate in front of the screen, finding things as a person does: by role and label. */
export class Candidate {
  readonly page: Page;
  readonly link: string;
  constructor(page: Page, link: string) {
    this.page = page;
    this.link = link;
  }

  private button(name: string | RegExp): Locator {
    return this.page.getByRole('button', { name, exact: typeof name === 'string' });
  }

  /** A field in view by its label: questions laid out beforehand are on the page, but not to be seen. */
  field(label: string): Locator {
    return this.page.getByLabel(label, { exact: true }).filter({ visible: true });
  }

  heading(name: string | RegExp): Locator {
    return this.page.getByRole('heading', { level: 1, name });
  }

  async opensLink(): Promise<void> {
    await this.page.goto(this.link);
  }

  async confirmsDetails(): Promise<void> {
    await this.button('These are my details').click();
    await expect(this.heading('Is everything ready?')).toBeVisible();
  }

  async passesChecks(): Promise<void> {
    await this.page.getByRole('heading', { name: 'Camera' }).scrollIntoViewIfNeeded();
    const found = 'Your face is in view. Lighting: good · Picture: sharp';
    await expect(this.page.getByText(found, { exact: true })).toBeVisible({ timeout: 45_000 });
    await this.button('Continue').click();
    await expect(this.heading('Your picture')).toBeVisible();
  }

  /** Where sound is checked too: hears the number, with the stand-in voice for a microphone. */
  async passesChecksWithSound(): Promise<void> {
    const played: string[] = [];
    this.page.on('request', (request) => {
      const digit = /\/sound\/(\d)\.wav/.exec(request.url())?.[1];
      if (digit) played.push(digit);
    });
    const sound = this.page.getByRole('listitem').filter({ hasText: 'Sound' });
    await sound.getByRole('combobox').selectOption({ label: 'Stand-in: a voice (demo)' });
    await sound.getByRole('button', { name: 'Play' }).click();
    await expect.poll(() => played.length).toBe(2);
    await sound.getByRole('textbox').fill(played.join(''));
    await expect(sound).toContainText('Sound and microphone work');
    await this.button(/^Continue/).click();
    await expect(this.heading('Your picture')).toBeVisible({ timeout: 45_000 });
  }

  async takesPicture(): Promise<void> {
    await this.button('Take the picture').click();
    await this.button('Use this picture').click();
    await expect(this.heading('Rules and confidentiality')).toBeVisible();
  }

  async ticksRules(): Promise<void> {
    await expect(this.heading('Rules and confidentiality')).toBeVisible();
    for (const line of await this.page.getByRole('checkbox').all()) await line.check();
    await this.button('I accept these rules').click();
  }

  async acceptsRules(): Promise<void> {
    await this.ticksRules();
    await expect(this.button('Start – the clock begins')).toBeEnabled();
  }

  async starts(): Promise<void> {
    await this.button('Start – the clock begins').click();
    await expect(this.heading('Question 1')).toBeVisible();
  }

  async handsInRehearsal(): Promise<void> {
    await this.button('Hand in my paper').click();
    await this.page.getByRole('alertdialog').getByRole('button', { name: 'Hand in my paper' }).click();
    await expect(this.heading('Your rehearsal')).toBeVisible();
  }

  /**
   * Takes the steps of the arrival without a look at them: for stories that are about something else. The steps themselves
   * are told in `arrival.spec.ts` and on the whole path.
   */
  private async takesSteps(): Promise<void> {
    const { request } = this.page;
    const steps = new URL('/api/arrival/', this.link).href;
    const link = this.link.split('/').at(-1)!;
    const opened = await request.post(`${steps}open`, { data: { link } });
    const view = (await opened.json()) as ArrivalView;
    const results = view.checks.demanded.map((name) => ({ name, outcome: 'good', facts: {} }));
    const accepted = view.rules.statements.map((statement) => statement.key);
    const headers = { 'Content-Type': 'image/jpeg' };
    for (const answer of [
      await request.post(`${steps}details`, { data: { correction: null } }),
      await request.post(`${steps}checks`, { data: { results, goOn: true } }),
      await request.put(`${steps}picture/person`, { data: Buffer.from(SMALL_PICTURE, 'base64'), headers }),
      await request.post(`${steps}rules`, { data: { version: view.rules.version, accepted } }),
    ])
      expect(answer.ok(), await answer.text()).toBe(true);
    await this.opensLink();
  }

  async comesToCover(): Promise<void> {
    await this.takesSteps();
    // Measuring scripts come this way too, and have no other patience than this.
    await expect(this.button('Start – the clock begins')).toBeEnabled({ timeout: 60_000 });
  }

  async comesToWaitingRoom(): Promise<void> {
    await this.takesSteps();
    await expect(this.heading('Waiting room')).toBeVisible();
  }

  /** The whole way from the link to the desk, as short as it goes. */
  async arrives(): Promise<void> {
    await this.comesToCover();
    await this.starts();
  }

  async goesTo(number: number): Promise<void> {
    await this.page
      .getByRole('navigation', { name: 'Questions' })
      .getByRole('button', { name: new RegExp(`^Question ${number},`) })
      .click();
    await expect(this.heading(`Question ${number}`)).toBeVisible();
  }

  async chooses(...options: string[]): Promise<void> {
    for (const option of options) {
      // Pressed where a person would: on its words.
      const own = this.page.getByLabel(option, { exact: true });
      if (!(await this.field(option).isChecked()))
        await this.page.locator('label').filter({ has: own, visible: true }).click();
      await expect(this.field(option)).toBeChecked();
    }
  }

  async entersFigure(figure: string, field = 0): Promise<void> {
    await this.page.getByRole('main').getByRole('textbox').nth(field).fill(figure);
  }

  async fillsGap(position: number, value: string): Promise<void> {
    const gap = this.field(`Gap ${position}`);
    const list = (await gap.evaluate((element) => element.tagName)) === 'SELECT';
    await (list ? gap.selectOption(value) : gap.fill(value));
  }

  async writes(text: string): Promise<void> {
    await this.page.getByRole('main').getByRole('textbox').click();
    await this.page.keyboard.type(text);
  }

  async programs(
    language: 'Python' | 'JavaScript' | 'TypeScript' | 'SQL',
    program: string,
    file: string | null = null,
  ): Promise<void> {
    await this.page.getByRole('radio', { name: language }).filter({ visible: true }).click();
    const name = file === null ? `Program in ${language}` : `${file}, program in ${language}`;
    const editor = this.page.getByRole('textbox', { name }).filter({ visible: true });
    await editor.click();
    await this.page.keyboard.press('Control+A');
    await this.page.keyboard.insertText(program);
  }

  async triesAllCases(): Promise<void> {
    await this.button('Run all').filter({ visible: true }).click();
  }

  /** The saved line says so, and it is true only after the server's durable commit. */
  async isSaved(): Promise<void> {
    await expect(this.page.locator('[data-saved="saved"]')).toContainText(/Saved \d\d:\d\d/);
  }

  async looksBack(): Promise<void> {
    await this.button('Last look').first().click();
    await expect(this.heading('Last look')).toBeVisible();
  }

  async handsIn(title: string | RegExp = 'Your paper is handed in'): Promise<void> {
    await this.looksBack();
    await this.handsInFromLastLook(title);
  }

  async handsInFromLastLook(title: string | RegExp = 'Your paper is handed in'): Promise<void> {
    await this.button('Hand in my paper').click();
    await this.page.getByRole('alertdialog').getByRole('button', { name: 'Hand in my paper' }).click();
    await expect(this.heading(title)).toBeVisible();
  }
}
