import { expect, type Page } from '@playwright/test';
import { staffMembers } from '../../demo/people';

export type StaffRole = 'coordinator' | 'assessor' | 'lead' | 'invigilator';

/** Somebody of the staff at their desk, finding things by role and label. */
export class Staff {
  readonly page: Page;
  private constructor(page: Page) {
    this.page = page;
  }

  /** With a session of their own from the start: the page to sign in on is told where it is the subject (`signInAs`). */
  static async signIn(page: Page, url: string, role: StaffRole): Promise<Staff> {
    const { name, email, password } = staffMembers.find((m) => m.roles[0] === role)!;
    const answer = await page.request.post(`${url}/api/sign-in`, { data: { email, password } });
    expect(answer.ok(), await answer.text()).toBe(true);
    await page.goto(`${url}/staff`);
    await expect(page.getByText(name)).toBeVisible();
    return new Staff(page);
  }

  /** Whoever is signed in here already. */
  static at(page: Page): Staff {
    return new Staff(page);
  }

  static async signInAs(
    page: Page,
    url: string,
    member: { readonly name: string; readonly email: string; readonly password: string },
  ): Promise<Staff> {
    await page.goto(`${url}/sign-in`);
    await page.getByLabel('E-mail').fill(member.email);
    await page.getByLabel('Password').fill(member.password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText(member.name)).toBeVisible();
    return new Staff(page);
  }

  async goesTo(
    area: 'Rounds' | 'Papers' | 'Outbox' | 'Marking' | 'Sign-off' | 'Results' | 'Watch',
  ): Promise<void> {
    await this.page.getByRole('navigation', { name: 'Areas' }).getByRole('link', { name: area }).click();
    await expect(this.page.getByRole('heading', { level: 1, name: area })).toBeVisible();
  }

  async opensRound(title: string): Promise<void> {
    await this.goesTo('Rounds');
    await this.page.getByRole('link', { name: title, exact: true }).click();
    await expect(this.page.getByRole('heading', { level: 1, name: title })).toBeVisible();
  }

  async watches(title: string): Promise<void> {
    await this.goesTo('Watch');
    await this.page.getByRole('link', { name: title }).click();
    await expect(this.page.getByRole('heading', { level: 1, name: title })).toBeVisible();
  }

  /** One act for a candidate in the watch room, by its button or behind “more”. */
  async does(act: string, name: string, text: string, minutes?: number): Promise<void> {
    const row = this.page.getByRole('row').filter({ hasText: name });
    const button = row.getByRole('button', { name: act, exact: true });
    if (await button.isVisible()) await button.click();
    else {
      await row.getByRole('button', { name: `More for ${name}` }).click();
      await this.page.getByRole('dialog').getByRole('button', { name: act, exact: true }).click();
    }
    const form = this.page.getByRole('dialog', { name: `${act}: ${name}` });
    if (minutes !== undefined) await form.getByLabel('Minutes').fill(String(minutes));
    await form.getByRole('textbox').fill(text);
    await form.getByRole('button', { name: act, exact: true }).click();
    await expect(form).toBeHidden();
    await this.page.keyboard.press('Escape');
  }

  async invites(name: string, email: string, extra: number): Promise<void> {
    await this.page.getByRole('button', { name: 'Invite a candidate' }).click();
    const form = this.page.getByRole('dialog');
    await form.getByLabel('Name').fill(name);
    await form.getByLabel('E-mail').fill(email);
    await form.getByLabel('Extra time').fill(String(extra));
    await form.getByRole('button', { name: 'Invite and prepare the e-mail' }).click();
    await expect(form.getByRole('status')).toContainText(email);
    await form.getByRole('link', { name: 'Read the e-mail' }).click();
  }

  /** Finds the first letter to an address, their invitation, in the outbox and opens it. */
  async readsInvitationOf(email: string): Promise<void> {
    await this.goesTo('Outbox');
    await this.page.getByRole('searchbox', { name: 'Search' }).fill(email);
    await this.page
      .getByRole('button', { name: `Read the e-mail to ${email}` })
      .last()
      .click();
    await expect(this.page.getByRole('article').getByText(email)).toBeVisible();
  }

  /** An act that asks once more before it is done. */
  async confirms(act: string): Promise<void> {
    await this.page.getByRole('button', { name: act }).click();
    await this.page.getByRole('alertdialog').getByRole('button', { name: act }).click();
  }

  async opensPile(item: string): Promise<void> {
    await this.goesTo('Marking');
    await this.page.getByRole('link', { name: item }).click();
    await expect(this.page.getByRole('region', { name: 'Response' })).toBeVisible();
  }

  /** Marks the script in view by keyboard alone: a digit gives the mark it shows, criterion by criterion; K the comment. */
  async marksByKeys(marks: readonly number[], comment: string): Promise<void> {
    for (const mark of marks) await this.page.keyboard.press(String(mark));
    await this.page.keyboard.press('k');
    await this.page.keyboard.type(comment);
    await this.page.keyboard.press('Escape');
    await this.page.keyboard.press('Enter');
  }
}
