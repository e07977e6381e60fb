import { expect, type Locator, type Page } from '@playwright/test';
import { pageFile } from '../pageFiles';

export type Way = 'pointer' | 'keys' | 'touch';

const PROGRAMS = {
  Python: 'def pots(cups):\n    return -(-cups // 8)\n',
  JavaScript: 'const pots = (cups) => Math.ceil(cups / 8);\n',
};

/** Answers the gallery, kind by kind: with a pointer, with the keyboard alone, or with fingers on a phone. */
export class Answering {
  private readonly page: Page;
  private readonly way: Way;
  constructor(page: Page, way: Way) {
    this.page = page;
    this.way = way;
  }

  /** In view: questions laid out beforehand are on the page, but not to be seen. */
  private find(
    role: 'button' | 'radio' | 'checkbox' | 'textbox' | 'application',
    name?: string | RegExp,
  ): Locator {
    return this.page
      .getByRole('main')
      .getByRole(role, name === undefined ? {} : { name, exact: typeof name === 'string' })
      .filter({ visible: true })
      .first();
  }

  /** Presses Tab until something has the focus; from the top of the page where it lies before. */
  private async tabsTo(target: Locator): Promise<void> {
    // Found by its name only once: to find it costs the browser more than all else here.
    const handle = await target.elementHandle();
    for (let i = 0; i < 150; i++) {
      if (await handle.evaluate((element) => element.contains(document.activeElement))) return;
      await this.page.keyboard.press('Tab');
    }
    throw new Error(`${target.toString()} cannot be reached with Tab`);
  }

  private async press(target: Locator): Promise<void> {
    if (this.way === 'pointer') return target.click();
    if (this.way === 'touch') return target.tap();
    await this.tabsTo(target);
    await this.page.keyboard.press('Enter');
  }

  private async type(target: Locator, text: string): Promise<void> {
    if (this.way === 'keys') await this.tabsTo(target);
    else await this.press(target);
    await this.page.keyboard.type(text);
  }

  /** One of a group of round boxes: by keys the arrows go from one to the next. */
  private async picks(group: string | RegExp, option: string): Promise<void> {
    const radios = this.page.getByRole('radiogroup', { name: group }).filter({ visible: true });
    const own = this.page.getByRole('radio', { name: option, exact: true });
    const target = radios.getByRole('radio', { name: option, exact: true });
    if (this.way !== 'keys') {
      const label = radios.locator('label').filter({ has: own });
      await this.press(label);
    } else {
      await this.tabsTo(radios);
      await this.page.keyboard.press('Space');
      for (let i = 0; i < 8 && !(await target.isChecked()); i++) await this.page.keyboard.press('ArrowDown');
    }
    await expect(target).toBeChecked();
  }

  private async ticks(name: string): Promise<void> {
    const box = this.find('checkbox', name);
    if (this.way === 'keys') {
      await this.tabsTo(box);
      await this.page.keyboard.press('Space');
    } else {
      const own = this.page.getByRole('checkbox', { name, exact: true });
      await this.press(this.page.getByRole('main').locator('label').filter({ has: own, visible: true }));
    }
    await expect(box).toBeChecked();
  }

  private async keys(...keys: string[]): Promise<void> {
    for (const key of keys) {
      const [, name, times] = /^(\w+)×(\d+)$/.exec(key) ?? [null, key, '1'];
      for (let i = 0; i < Number(times); i++) await this.page.keyboard.press(name);
    }
  }

  /** On a phone, source and answer are two tabs. */
  private async turnsTo(name: 'Source' | 'Answer'): Promise<void> {
    const tab = this.page.getByRole('tab', { name }).filter({ visible: true });
    if (!(await tab.isVisible()) || (await tab.getAttribute('aria-selected')) === 'true') return;
    if (this.way === 'keys') {
      const other = name === 'Source' ? 'Answer' : 'Source';
      await this.tabsTo(this.page.getByRole('tab', { name: other }).filter({ visible: true }));
      await this.page.keyboard.press(name === 'Answer' ? 'ArrowRight' : 'ArrowLeft');
    } else await this.press(tab);
  }

  private readonly showsSource = () => this.turnsTo('Source');
  private readonly showsAnswer = () => this.turnsTo('Answer');

  async choice(): Promise<void> {
    // On a phone a question with a source begins with it.
    await this.showsAnswer();
    await this.picks(/Who makes the coffee/, 'Bram');
  }

  async number(): Promise<void> {
    await this.type(this.find('textbox'), '44');
  }

  async gaps(): Promise<void> {
    await this.type(this.find('textbox', 'Gap 1'), 'rinse');
    const list = this.page.getByLabel('Gap 2', { exact: true }).filter({ visible: true });
    if (this.way === 'keys') {
      await this.tabsTo(list);
      await this.page.keyboard.type('off');
    } else await list.selectOption('off');
  }

  async order(): Promise<void> {
    if (this.way === 'pointer') {
      // By its whole body: the words of the entry.
      const entries = this.page.getByRole('main').getByRole('listitem').filter({ visible: true });
      const entry = (text: string) => entries.getByText(text, { exact: true });
      const order = [
        'Fill the machine with water',
        'Put powder into the filter',
        'Wait until it has run through',
      ];
      for (const [place, text] of order.entries()) {
        await this.drags(entry(text), entries.nth(place));
        await expect(entries.nth(place)).toContainText(text);
      }
      return;
    }
    for (const [step, times] of [
      ['Fill the machine with water', 1],
      ['Put powder into the filter', 2],
      ['Wait until it has run through', 1],
    ] as const)
      for (let i = 0; i < times; i++) await this.press(this.find('button', `Move ${step} up`));
  }

  async writing(): Promise<void> {
    await this.type(this.find('textbox'), 'Thank you for the coffee this morning.');
  }

  /** In the other language where no pointer is at hand: it has to be chosen first, and its engine starts in no time. */
  async code(): Promise<void> {
    if (this.way === 'touch') await this.opensProgram();
    const language = this.way === 'pointer' ? 'Python' : 'JavaScript';
    if (this.way === 'touch') await this.press(this.find('radio', language));
    if (this.way === 'keys') {
      await this.tabsTo(this.find('radio', 'Python'));
      await this.page.keyboard.press('ArrowRight');
      // A key that is let go at once moves the focus alone, and nobody's finger is as fast.
      await expect(this.find('radio', language)).toBeFocused();
      await this.page.keyboard.press('Space');
    }
    await this.program(language, PROGRAMS[language]);
  }

  /** Writes a program in the editor of a language. */
  private async program(language: string, text: string): Promise<void> {
    const editor = this.find('textbox', `Program in ${language}`);
    if (this.way === 'keys') await this.tabsTo(editor);
    else await this.press(editor);
    await this.page.keyboard.press('Control+A');
    await this.page.keyboard.insertText(text);
    await this.page.keyboard.press('Escape');
  }

  /** A program that reads an input. */
  async cups(): Promise<void> {
    if (this.way === 'touch') await this.opensProgram();
    await this.program('Python', 'import sys\nprint(sum(int(line.split()[1]) for line in sys.stdin))\n');
  }

  async query(): Promise<void> {
    if (this.way === 'touch') await this.opensProgram();
    await this.program('SQL', 'select person, sum(cups) as total from cup group by person\n');
  }

  private opensProgram(): Promise<void> {
    return this.page.getByRole('tab', { name: 'Program' }).filter({ visible: true }).tap();
  }

  async gridChoice(): Promise<void> {
    await this.picks(/lights of the cold-store/, 'Going out');
    await this.picks('Coats are handed out', 'Going in');
    await this.picks(/visitors/, 'Going in');
  }

  private async drags(from: Locator, to: Locator): Promise<void> {
    // The first line of what wraps: the middle of all its lines can lie beside it.
    const start = await from.evaluate((element) => {
      const { x, y, width, height } = element.getClientRects()[0]!;
      return { x, y, width, height };
    });
    const end = (await to.boundingBox())!;
    const { mouse } = this.page;
    await mouse.move(start.x + start.width / 2, start.y + start.height / 2);
    await mouse.down();
    await mouse.move(end.x + end.width / 2, end.y + end.height / 2, { steps: 12 });
    await mouse.up();
  }

  /** Chips into bins; with the pointer one is dragged. */
  async sort(): Promise<void> {
    const bins = ['Cold-store', 'Damp sand'];
    for (const [text, bin] of [
      ['Dry seed of sea kale', 'Cold-store'],
      ['Dry seed of Baltic rush', 'Cold-store'],
      ['Fresh hazelnuts', 'Damp sand'],
      ['Fresh acorns', 'Damp sand'],
    ] as const) {
      const chip = this.find('button', `Select “${text}”`);
      if (this.way === 'pointer' && text === 'Fresh acorns') {
        await this.drags(chip, this.page.getByRole('group', { name: bin, exact: true }));
      } else {
        await this.press(chip);
        if (this.way === 'keys') await this.keys(`ArrowRight×${bins.indexOf(bin) + 1}`, 'Enter');
        else await this.press(this.find('button', `Put “${text}” into ${bin}`));
      }
      await expect(this.find('button', `Remove “${text}” from ${bin}`)).toBeVisible();
    }
  }

  async match(): Promise<void> {
    for (const [left, right] of [
      ['The balance', 'grams'],
      ['The thermometer', 'degrees Celsius'],
      ['The light meter', 'lux'],
    ] as const) {
      const partners = this.page.getByRole('list', { name: 'Right', exact: true }).filter({ visible: true });
      const entry = this.find('button', new RegExp(`^${left}`));
      const partner = partners.getByRole('button', { name: right, exact: true });
      const isPointer = this.way === 'pointer';
      if (isPointer && left === 'The balance') await this.drags(entry, partner);
      // From the other side, too.
      else if (isPointer && left === 'The thermometer') await this.drags(partner, entry);
      else await this.press(entry);
      if (this.way === 'keys') {
        const all = await partners.getByRole('button').allTextContents();
        await this.keys(`ArrowDown×${all.indexOf(right) + 1}`, 'Enter');
      } else if (!isPointer || left === 'The light meter') await this.press(partner);
      await expect(this.page.getByRole('listitem').filter({ hasText: `${left} – ${right}` })).toBeAttached();
    }
  }

  async selectText(): Promise<void> {
    await this.press(this.find('button', 'somebody had pressed the switch twice'));
    // Another one takes its place.
    await this.press(this.find('button', 'the pot had been left on the plate'));
    await expect(this.page.getByText('What had happened: 1 of 1')).toBeVisible();
    await this.press(this.find('button', 'the whole corridor smelled of burnt coffee'));
  }

  async hotArea(): Promise<void> {
    if (this.way === 'pointer') {
      const picture = this.page.getByRole('img', { name: /^A bean, cut open/ });
      const box = (await picture.boundingBox())!;
      // The large pale half by a press on the picture.
      await this.page.mouse.click(box.x + box.width * 0.6, box.y + box.height * 0.48);
      await expect(this.find('checkbox', 'The large pale half')).toBeChecked();
    } else await this.ticks('The large pale half');
    await this.ticks('The short tip at the left edge');
  }

  /** Places on the plane by its grid: eight days across, twelve cups up. */
  private async setsPoint(across: number, up: number): Promise<void> {
    const grid = (await this.find('application', /^Drawing/)
      .locator('rect')
      .first()
      .boundingBox())!;
    await this.page.mouse.click(grid.x + (grid.width * across) / 8, grid.y + grid.height * (1 - up / 12));
  }

  private async typesPlace(fields: readonly (readonly [string, string])[]): Promise<void> {
    for (const [label, value] of fields) {
      const field = this.page.getByRole('main').getByLabel(label, { exact: true }).filter({ visible: true });
      await field.tap();
      await this.page.keyboard.type(value);
    }
    await this.press(this.find('button', 'Set'));
  }

  async plot(): Promise<void> {
    const places = [
      [4, 9],
      [0, 5],
      [4, 9],
      [0, 8],
      [8, 8],
      [8, 10],
    ] as const;
    if (this.way === 'keys') {
      const plane = this.find('application', /^Drawing/);
      await this.tabsTo(plane);
      let [x, y] = [4, 6];
      for (const [across, up] of places) {
        await this.keys(`${across > x ? 'ArrowRight' : 'ArrowLeft'}×${Math.abs(across - x)}`);
        await this.keys(`${up > y ? 'ArrowUp' : 'ArrowDown'}×${Math.abs(up - y)}`, 'Space');
        [x, y] = [across, up];
      }
    } else
      for (const [across, up] of places) {
        if (this.way === 'pointer') await this.setsPoint(across, up);
        else
          await this.typesPlace([
            ['across', String(across)],
            ['up', String(up)],
          ]);
      }
    await this.picks('Border', 'dashed: does not belong to it');
    await expect(this.page.getByText(/^Drawing: half-plane r – half-plane r on the side of/)).toBeVisible();
  }

  async numberLine(): Promise<void> {
    await this.picks('What you mark', 'an interval');
    const line = this.find('application', /^Number line/);
    if (this.way === 'keys') {
      await this.tabsTo(line);
      // The cursor stands at 2; a step is half a degree.
      await this.keys('ArrowLeft×4', 'Space', 'ArrowRight×10', 'Space');
    } else if (this.way === 'pointer') {
      const box = (await line.locator('rect').first().boundingBox())!;
      for (const at of [0, 5]) await this.page.mouse.click(box.x + (box.width * (at + 4)) / 12, box.y + 12);
    } else for (const at of ['0', '5']) await this.typesPlace([['Value', at]]);
    await this.press(this.find('button', '0 belongs to it'));
    await expect(this.page.getByText('more than 0, up to and including 5')).toBeVisible();
  }

  async expression(): Promise<void> {
    if (this.way === 'touch') {
      await this.press(this.find('button', 'Type it in one line'));
      await this.type(this.find('textbox'), 'x^2+2x-3');
    } else {
      const field = this.page.locator('math-field').filter({ visible: true });
      if (this.way === 'keys') await this.tabsTo(field);
      else await field.click();
      // The editor takes the focus a moment after it was pressed.
      await expect(field).toBeFocused();
      await this.page.keyboard.type('x');
      // A sign of the toolbar, then the keyboard again.
      await this.press(this.find('button', 'Square'));
      if (this.way === 'keys') await field.focus();
      await this.page.keyboard.press('End');
      await this.page.keyboard.type('+2x-3');
    }
  }

  /** The figure of the slip is copied by a press; by keys the cells are gone through with Enter. */
  async tableEntry(): Promise<void> {
    const cell = (name: string) => this.find('textbox', name);
    if (this.way === 'touch')
      await this.page.getByRole('tab', { name: 'Answer' }).filter({ visible: true }).tap();
    if (this.way === 'pointer') {
      await cell('Monday, drunk, Out').click();
      await this.page.getByRole('button', { name: '180', exact: true }).click();
      await expect(cell('Monday, drunk, Out')).toHaveValue('180');
    } else await this.type(cell('Monday, drunk, Out'), '180');
    await this.type(cell('Monday, drunk, Held'), '450');
    if (this.way === 'keys') await this.keys('Enter');
    // 640 − 180 is 460, not 450; what follows from 450 counts in part.
    await this.type(cell('Tuesday, new bag, Held'), '950');
    const bag = cell('Tuesday, new bag, In');
    // The phrase is dragged to its cell, whichever one was chosen before.
    if (this.way === 'pointer') {
      await this.drags(this.page.getByRole('button', { name: '500', exact: true }), bag);
      await expect(bag).toHaveValue('500');
    } else await this.type(bag, '500');
  }

  async onPaper(): Promise<void> {
    await this.ticks('I have done this on paper.');
  }

  /** Chooses a file, turns its page, and types as well. */
  async upload(): Promise<void> {
    const input = this.page.getByLabel('Choose files').filter({ visible: true });
    const label = this.page.locator('label').filter({ hasText: 'Choose files', visible: true });
    // Waited for well before the key: on a starved machine the browser did not know yet that its dialog is waited for.
    const choosing = this.page.waitForEvent('filechooser');
    if (this.way === 'keys') {
      await this.tabsTo(input);
      await this.page.keyboard.press('Enter');
    } else await this.press(label);
    const chooser = await choosing;
    await chooser.setFiles(await pageFile(1));
    const page = this.page.getByRole('listitem', { name: 'Page 1' });
    await expect(page.getByText('saved', { exact: true })).toBeVisible({ timeout: 20_000 });
    await this.press(page.getByRole('button', { name: 'Turn page 1' }));
    await this.type(this.find('textbox', 'Or type your answer'), 'Eight pots, and 20 g are left.');
  }

  async phrases(): Promise<void> {
    await this.showsSource();
    await this.press(this.find('button', 'the filters are in the blue tin'));
    // Another one takes its place.
    await this.press(this.find('button', 'the window looks out on the harbour'));
    await this.showsAnswer();
    await expect(this.page.getByText('In the note: 1 of 1').filter({ visible: true })).toBeVisible();
  }

  /** Phrases of the source are put into the answer. */
  async duties(): Promise<void> {
    const bins = ['Somebody does it', 'Where something is'];
    for (const [text, bin] of [
      ['whoever comes before seven fills the machine', bins[0]!],
      ['the plate is switched off at four', bins[0]!],
      ['the filters are in the blue tin', bins[1]!],
    ] as const) {
      await this.showsSource();
      const phrase = this.page.locator('[data-phrase]').filter({ visible: true, hasText: text });
      const put = this.page.getByRole('group', { name: bin, exact: true });
      if (this.way === 'pointer') await this.drags(phrase, put);
      else {
        await this.press(phrase);
        await this.showsAnswer();
        await this.press(this.find('button', `Put “${text}” into ${bin}`));
      }
      await expect(this.find('button', `Remove “${text}” from ${bin}`)).toBeVisible();
    }
  }

  /** Every kind in the order of the gallery. */
  get all(): readonly (() => Promise<void>)[] {
    return [
      () => this.choice(),
      () => this.number(),
      () => this.gaps(),
      () => this.order(),
      () => this.writing(),
      () => this.code(),
      () => this.gridChoice(),
      () => this.sort(),
      () => this.match(),
      () => this.selectText(),
      () => this.hotArea(),
      () => this.plot(),
      () => this.numberLine(),
      () => this.expression(),
      () => this.tableEntry(),
      () => this.onPaper(),
      () => this.upload(),
      () => this.cups(),
      () => this.query(),
      () => this.phrases(),
      () => this.duties(),
    ];
  }
}
