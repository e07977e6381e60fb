import type { Page, Request } from '@playwright/test';
import type { MarkingTableData, QualityData } from '../core/marking/api';
import { staffMembers } from '../demo/people';
import { freePort } from '../server/testing/freePort';
import { readPdf } from '../server/testing/readPdf';
import { hasNoBarriers } from './barriers';
import { COHORT } from './paths';
import { Staff } from './people/Staff';
import { seedOnce } from './prepare';
import { expect, test as base, TestApp } from './testApp';

/** The server on the main sitting of 60 scripts, partly marked; seeded once. */
const test = base.extend<{ readonly app: TestApp }>({
  app: async ({}, use) => {
    await seedOnce(COHORT);
    const app = new TestApp(await freePort(), COHORT);
    await app.start();
    await use(app);
    await app.close();
  },
});

const member = (name: string) => staffMembers.find((one) => one.name === name)!;
const ROUND = 'Technician, November main sitting';
/** So many scripts of an item are marked as a person does, the rest by the same requests; so are gaps. */
const [BY_KEYS, BY_HAND] = [3, 2];

/** Collects every byte that the API sends to a page. */
function heardBy(page: Page): () => Promise<string> {
  const bodies: Promise<string>[] = [];
  page.on('response', (response) => {
    if (!response.url().includes('/api/') || response.url().includes('/pages/')) return;
    bodies.push(response.text().catch(() => ''));
  });
  return async () => (await Promise.all(bodies)).join('\n');
}

/** Gives the lowest or highest mark of every criterion in view by keys, and passes on. */
async function marksAll(page: Page, marks: readonly number[]): Promise<void> {
  for (const mark of marks) await page.keyboard.press(String(mark));
  await page.keyboard.press('Enter');
}

const HALF = { width: 640, height: 800 };

test('marking and its quality at half of a laptop’s width, as at a zoom of 200 %', async ({
  app,
  browser,
}) => {
  const page = await (await browser.newContext()).newPage();
  const beyond = () => page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
  const widthOf = async (name: string) => (await page.getByLabel(name, { exact: true }).boundingBox())!.width;
  await Staff.signInAs(
    page,
    app.url,
    staffMembers.find(({ roles }) => roles[0] === 'assessor')!,
  );
  await page.setViewportSize(HALF);
  // The areas wait behind a button, and the page has the width.
  await expect(page.getByRole('link', { name: 'Marking' })).toBeHidden();
  await page.getByRole('button', { name: 'Menu' }).click();
  await page.getByRole('link', { name: 'Marking' }).click();
  await expect(page.getByRole('link', { name: 'Account' })).toBeHidden();
  expect(await beyond()).toBeLessThanOrEqual(0);
  await page.getByRole('main').getByRole('link').first().click();
  await expect(page.getByRole('region', { name: 'Response' })).toBeVisible();
  for (const name of ['Response', 'Your mark']) expect(await widthOf(name)).toBeGreaterThan(600);
  expect(await beyond()).toBeLessThanOrEqual(0);
  await page.getByRole('button', { name: /^Next/ }).scrollIntoViewIfNeeded();
  await expect(page.getByRole('button', { name: /^Next/ })).toBeInViewport();

  const lead = await (await browser.newContext()).newPage();
  await Staff.signIn(lead, app.url, 'lead');
  await lead.setViewportSize(HALF);
  await lead.goto(`${app.url}/staff/sign-off`);
  await lead
    .getByRole('row')
    .filter({ hasText: ROUND })
    .getByRole('link', { name: /^\d+ · / })
    .first()
    .click();
  const chart = lead.getByRole('main').getByRole('img').first();
  await expect(chart).toBeVisible();
  const { x, width } = (await chart.boundingBox())!;
  expect(x + width).toBeLessThanOrEqual(640);
  expect(await lead.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
});

test('sixty scripts: notes, a gap, agreed marks, a credit set right, sign-off, a corrected key, release on a date, a check', async ({
  app,
  browser,
}) => {
  const enter = async (name: string) =>
    Staff.signInAs(await (await browser.newContext()).newPage(), app.url, member(name));
  const round = app.rows<{ id: number }>('select id from rounds where title = ?', ROUND)[0]!.id;

  // An assessor marks one response wholly by keys, with a note on words and one on a photographed page.
  const tamsin = await enter('Tamsin Ebanks');
  const heard = heardBy(tamsin.page);
  const table = tamsin.page;
  const opens = async (item: string) => {
    await table.goto(`${app.url}/staff/marking/${round}/${item}/A`);
    await expect(table.getByRole('region', { name: 'Response' })).toBeVisible();
  };
  await opens('incident-note');
  await hasNoBarriers(table, 'marking table');
  const before = await table.getByText(/\d+ by you/).textContent();
  await table.getByRole('group', { name: /^The answer/ }).focus();
  await table.keyboard.press('ArrowRight');
  await table.keyboard.press('Shift+ArrowRight');
  await table.keyboard.press('Shift+ArrowRight');
  await table.keyboard.press('n');
  await table.keyboard.type('Begin with the time.');
  await table.keyboard.press('Enter');
  await table.getByRole('heading', { level: 1 }).click();
  await table.keyboard.press('3');
  // Half made, it is there again after a reload.
  await expect.poll(() => app.rows('select id from marking_tasks where draft is not null')).toHaveLength(1);
  await table.reload();
  await expect(table.getByRole('textbox', { name: 'Text of note 1' })).toHaveValue('Begin with the time.');
  await marksAll(table, [2, 3, 2]);
  await expect(table.getByText(before!)).toBeHidden();
  await opens('how-many-to-sow');
  const picture = table.getByRole('application', { name: /^Press Page 1/ });
  const box = (await picture.boundingBox())!;
  await table.mouse.move(box.x + box.width * 0.1, box.y + box.height * 0.1);
  await table.mouse.down();
  await table.mouse.move(box.x + box.width * 0.6, box.y + box.height * 0.3, { steps: 4 });
  await table.mouse.up();
  await table.keyboard.type('Which share is this?');
  await table.keyboard.press('Enter');
  const code = (await table.getByText(/^script /).textContent())!.split(' ')[1]!;
  await table.getByRole('heading', { level: 1 }).click();
  await marksAll(table, [2, 2]);
  await expect(table.getByText(`script ${code}`)).toBeHidden();
  // Taken back at once, it begins at its first criterion, and each mark is confirmed or changed before it goes on.
  await table.keyboard.press('u');
  await expect(table.getByText(`script ${code}`)).toBeVisible();
  await expect(table.getByText(/^2 marks stand from before/)).toBeVisible();
  await table.keyboard.press('1');
  await table.keyboard.press('9');
  await expect(table.getByText(/^“9” is no mark here\. Possible: /)).toBeVisible();
  await expect(table.getByText(/^1 mark stands from before/)).toBeVisible();
  // One key goes to the page; its crosshair is moved, and a note lies where it is.
  await table.keyboard.press('w');
  await expect(picture).toBeFocused();
  for (const key of ['ArrowRight', 'ArrowRight', 'ArrowDown', 'n']) await table.keyboard.press(key);
  await table.keyboard.type('Here, too.');
  await table.keyboard.press('Enter');
  const [mark, whole] = [
    (await table.getByRole('button', { name: 'Note 2', exact: true }).boundingBox())!,
    (await picture.boundingBox())!,
  ];
  // Two steps of a twenty-fifth to the right of the middle.
  expect((mark.x + mark.width / 2 - whole.x) / whole.width).toBeCloseTo(0.58, 1);
  // In another window the same script gets other marks first: both are shown, and nothing is replaced unseen.
  const twin = await table.context().newPage();
  await twin.goto(table.url());
  await expect(twin.getByText(`script ${code}`)).toBeVisible();
  await marksAll(twin, [0, 0]);
  await expect(twin.getByText(`script ${code}`)).toBeHidden();
  await twin.close();
  await table.getByRole('heading', { level: 1 }).click();
  await table.keyboard.press('Enter');
  await table.keyboard.press('Enter');
  const both = table.getByRole('region', { name: 'This script has other marks already' });
  await expect(both).toContainText(code);
  await hasNoBarriers(table, 'two marks of one script');
  await both.getByRole('button', { name: 'Use the marks given now' }).click();
  await expect(table.getByText(`script ${code}`)).toBeHidden();
  await expect(both).toBeHidden();
  // Those that were marked are at hand while the item is open.
  await table.getByRole('button', { name: /^\d+ by you/ }).click();
  await table.getByRole('searchbox').fill('Here, too');
  await expect(table.getByRole('button', { name: `Mark ${code} again` })).toBeVisible();
  await table.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  // A credit of the machine is set right beside what people decide, with a reason.
  await opens('days-to-half');
  // What the program did is beside it, and it is run again with an input of the assessor's own.
  const evidence = table.getByRole('region', { name: 'What the program did' });
  await evidence.getByRole('textbox', { name: 'Your own input' }).fill('[2, 4], 4');
  await evidence.getByRole('button', { name: 'Run with this input' }).click();
  await expect(evidence.getByRole('row').filter({ hasText: 'your input: [2, 4], 4' })).toContainText('1');
  await expect(evidence.getByRole('status')).toContainText('cases as expected');
  await hasNoBarriers(table, 'a program run again');
  const machine = table.getByRole('region', { name: 'Marked automatically' });
  await machine.getByRole('button', { name: 'Correct an automatic mark' }).first().click();
  await table.getByRole('textbox', { name: /^Marks, 0 to/ }).fill('1');
  await table.getByRole('textbox', { name: 'Reason' }).fill('The rounding is right by the note.');
  await machine.getByRole('button', { name: 'Set', exact: true }).click();
  await table.getByRole('heading', { level: 1 }).click();
  await marksAll(table, [2]);
  await expect.poll(() => app.rows("select id from marks where role = 'override'")).toHaveLength(1);
  await test.step('phrases by keys go in once; signed out, one comes back to the same script with its draft; who is known goes to another', async () => {
    await opens('incident-note');
    const comment = table.getByRole('textbox', { name: 'Comment to the candidate' });
    const code = (await table.getByText(/^script /).textContent())!;
    await comment.fill('The time is missing.');
    await table.getByText(/^Phrases/).click();
    await table.getByRole('button', { name: 'Save this comment as my phrase' }).click();
    await expect(table.getByText('Phrases (1)')).toBeVisible();
    await comment.fill('');
    await table.getByRole('heading', { level: 1 }).click();
    await table.keyboard.press('Alt+1');
    await expect(comment).toHaveValue('The time is missing.');
    const drafts = () =>
      app.rows('select id from marking_tasks where draft like \'%"comment":"The time is missing."%\'');
    await expect.poll(drafts).toHaveLength(1);
    await table.context().clearCookies();
    for (const mark of [3, 4, 3, 2]) await table.keyboard.press(String(mark));
    await table.keyboard.press('Enter');
    await table.getByRole('link', { name: 'Sign in, and come back to this page' }).click();
    await table.getByLabel('E-mail').fill(member('Tamsin Ebanks').email);
    await table.getByLabel('Password').fill(member('Tamsin Ebanks').password);
    await table.getByRole('button', { name: 'Sign in' }).click();
    await expect(table.getByText(code)).toBeVisible();
    await expect(comment).toHaveValue('The time is missing.');
    await table.getByRole('button', { name: 'Set aside' }).click();
    await table.getByRole('radio', { name: 'I know the person who wrote this' }).check();
    await table.getByRole('button', { name: 'Pass it to another assessor' }).click();
    await expect(table.getByText(code)).toBeHidden();
    await expect.poll(() => app.rows('select 1 from marking_interests')).toHaveLength(1);
  });
  // Nothing of a person, a time of handing in, or another's mark was sent.
  const sent = await heard();
  for (const { name, reference, email } of app.rows<{ name: string; reference: string; email: string }>(
    'select name, reference, email from people',
  ))
    for (const personal of [name, reference, email]) expect(sent).not.toContain(personal);
  expect(sent).not.toMatch(/closedAt|handedIn|startedAt|assessorId|"second"/);

  // Both go through what is left; an agreed mark that is missed is told kindly.
  const ruan = await enter('Ruan Petrel');
  let missed = 0;
  const done = (page: Page) => page.getByRole('heading', { name: 'This item is done' });
  const byKeys = async (page: Page, marks: readonly number[]): Promise<Request> => {
    const [reply] = await Promise.all([
      page.waitForResponse(
        (one) => /marking\/tasks\/\d+$/.test(one.url()) && one.request().method() === 'POST',
      ),
      marksAll(page, marks),
    ]);
    return reply.request();
  };
  /** Reads what is told of scripts with agreed marks, some time after they were marked. */
  const readsTold = async (page: Page) => {
    const told = page.getByRole('region', { name: 'This script has agreed marks' });
    for (;;) {
      await expect(
        page
          .getByText(/^script /)
          .or(done(page))
          .or(told),
      ).toBeVisible();
      if (!(await told.isVisible())) return;
      missed++;
      const reason = (await told.textContent())!;
      await page.getByRole('button', { name: 'Continue' }).click();
      await expect(page.getByText(reason, { exact: true })).toBeHidden();
    }
  };
  const finish = async (page: Page, item: string, marks: readonly number[], untilMissed = false) => {
    const { request } = page;
    await page.goto(`${app.url}/staff/marking/${round}/${item}/A`);
    await readsTold(page);
    let last: Request | null = null;
    for (let n = 0; n < BY_KEYS || (untilMissed && missed === 0); n++) {
      const [shown] = await page.getByText(/^script /).allTextContents();
      if (shown === undefined) break;
      last = await byKeys(page, marks);
      await expect(page.getByText(shown, { exact: true })).toBeHidden();
      if (!untilMissed) continue;
      await app.advance(1);
      await page.reload();
      await readsTold(page);
    }
    const pile = `${app.url}/api/marking/piles/${round}/${item}/A`;
    for (;;) {
      const { scripts } = (await (await request.get(pile)).json()) as MarkingTableData;
      if (scripts.length === 0) break;
      for (const { task } of scripts) {
        const given = await request.post(`${app.url}/api/marking/tasks/${task}`, {
          data: last!.postDataJSON() as object,
        });
        expect(given.ok(), await given.text()).toBe(true);
      }
    }
    await app.advance(1);
    await page.reload();
    await readsTold(page);
    await expect(done(page)).toBeVisible();
  };
  for (const [page, note] of [
    [tamsin.page, [3, 4, 3, 2]],
    [ruan.page, [0, 0, 0, 0]],
  ] as const) {
    await finish(page, 'incident-note', note, page === ruan.page);
    await finish(page, 'how-many-to-sow', [2, 2]);
    await finish(page, 'days-to-half', [1]);
  }
  expect(missed).toBeGreaterThan(0);

  // The lead sees the figures, settles every gap with a reason, and signs off.
  const hedda = await enter('Hedda Lorne');
  const lead = hedda.page;
  await hedda.goesTo('Sign-off');
  await lead
    .getByRole('row', { name: new RegExp(ROUND) })
    .getByRole('link', { name: /Incident note/ })
    .click();
  await expect(lead.getByRole('heading', { name: 'Quality of marking' })).toBeVisible();
  await expect(lead.getByRole('row', { name: /^Ruan Petrel/ }).first()).toContainText('within tolerance');
  await expect(lead.getByRole('row', { name: /^Weighted kappa, quadratic/ })).toContainText(/0\.\d\d95 %/);
  await hasNoBarriers(lead, 'quality');
  const reason = 'Both readings can be held.';
  const settles = async () => {
    await lead.getByRole('radio', { name: /^Mean/ }).click();
    await lead.getByRole('textbox', { name: 'Reason (kept on record)' }).fill(reason);
    await lead.getByRole('button', { name: 'Settle' }).click();
  };
  for (const item of ['incident-note', 'how-many-to-sow']) {
    await lead.goto(`${app.url}/staff/quality/${round}/${item}/A`);
    await lead
      .getByRole('link', { name: /^Settle the gap/ })
      .first()
      .click();
    await expect(lead.getByRole('button', { name: 'Settle' })).toBeVisible();
    await hasNoBarriers(lead, 'settle');
    const left = async () =>
      (await (
        await lead.request.get(`${app.url}/api/marking/quality/${round}/${item}/A`)
      ).json()) as QualityData;
    const gaps = (await left()).gaps.length;
    expect(gaps).toBeGreaterThan(BY_HAND);
    for (let n = 0; n < BY_HAND; n++) {
      const place = (await lead.getByText(/of \d+ gaps$/).textContent())!;
      await settles();
      await expect(lead.getByText(place, { exact: true })).toBeHidden();
    }
    const others = (await left()).gaps;
    expect(others).toHaveLength(gaps - BY_HAND);
    // The last one by hand again: after it comes the page of the item.
    for (const { id } of others.slice(0, -1)) {
      const settled = await lead.request.post(`${app.url}/api/marking/rounds/${round}/gaps/${id}`, {
        data: { given: 'mean', comment: '', reason },
      });
      expect(settled.ok(), await settled.text()).toBe(true);
    }
    await lead.goto(`${app.url}/staff/quality/${round}/${item}/A`);
    await lead.getByRole('link', { name: /^Settle the gap/ }).click();
    await settles();
    await expect(lead.getByRole('heading', { name: 'Quality of marking' })).toBeVisible();
  }
  await lead.goto(`${app.url}/staff/similar/${round}/incident-note/A`);
  await expect(lead.getByText('100 %', { exact: true })).toBeVisible();
  await hasNoBarriers(lead, 'similar responses');
  await lead.setViewportSize(HALF);
  await lead.goto(`${app.url}/staff/sign-off`);
  const row = lead.getByRole('row', { name: new RegExp(ROUND) });
  await row.getByRole('button', { name: 'Sign off the marks' }).click();
  await lead.getByRole('alertdialog').getByRole('button', { name: 'Sign off the marks' }).click();
  await expect(row.getByText('signed off', { exact: true })).toBeVisible();

  // The date of the release comes; a job does it. Nobody waits for the sixty papers that are printed ahead meanwhile.
  app.change(
    `update rounds set settings = json_set(settings, '$.release', 'on a date', '$.releaseAt', ?) where id = ?`,
    Date.now() + 1000,
    round,
  );
  const released = () => app.rows('select 1 from rounds where id = ? and released_at is not null', round);
  await expect.poll(released, { timeout: 90_000 }).toHaveLength(1);
  const [whose] = app.rows<{ invitation: number; email: string }>(
    `select i.id as invitation, p.email from sittings s join invitations i on i.id = s.invitation_id
     join people p on p.id = i.person_id where s.script = ?`,
    code,
  );
  const page = await (await browser.newContext()).newPage();
  const { invitation, email } = whose!;
  await page.goto(app.url + app.linkOf(email));
  await expect(page.getByText('confirmed', { exact: true })).toBeVisible();
  await expect(page.getByText('Which share is this?').first()).toBeVisible();
  await hasNoBarriers(page, 'result sheet');

  // A key is corrected afterwards: what would move is shown first, the released sheet says what changed.
  await lead.goto(`${app.url}/staff/rounds/${round}/answers/tray-14/C`);
  await lead.getByRole('button', { name: 'Accept “third”' }).click();
  const accepting = lead.getByRole('dialog');
  await expect(accepting.getByText(/^\d+ of 60 scripts get another total/)).toBeVisible();
  await expect(accepting.getByText(/^The results of this round are released/).first()).toBeVisible();
  await accepting.getByLabel(/^Reason/).fill('The note can be read so.');
  await accepting.getByRole('button', { name: 'Apply the correction' }).click();
  await expect(accepting).toBeHidden();
  const letters = () =>
    app.rows("select 1 from letters where json_extract(facts, '$.topic') = 'result changed'").length;
  await expect.poll(letters, { timeout: 60_000 }).toBeGreaterThan(0);

  // The candidate asks for a check and reads the answer.
  await page
    .getByRole('textbox', { name: 'Which question, and why' })
    .fill('Question 11: my working is complete.');
  await page.getByRole('button', { name: 'Send the request' }).click();
  await expect(page.getByText('There is no answer yet.')).toBeVisible();
  const odile = await enter('Odile Varr');
  const office = odile.page;
  await office.goto(`${app.url}/staff/results/${round}?filter=check+asked`);
  await expect(office.getByRole('region', { name: 'Candidates' }).getByRole('row')).toHaveCount(2);
  await hasNoBarriers(office, 'results of the round');
  await office
    .getByRole('textbox', { name: /^Answer to/ })
    .fill('Read again by two people; the marks stand.');
  await office.getByRole('button', { name: 'Send the answer' }).click();
  await expect(office.getByText(/^Answered: Read again/)).toBeVisible();
  await office.goto(`${app.url}/staff/review/${round}/${invitation}`);
  await expect(office.getByRole('region', { name: 'Timeline' })).toBeVisible();
  await hasNoBarriers(office, 'review');
  await page.reload();
  await expect(page.getByText('Read again by two people; the marks stand.')).toBeVisible();

  // The PDF holds the same marks.
  const total = (await page
    .getByText(/^of \d+$/)
    .locator('..')
    .textContent())!.replace('of', ' of ');
  const pdf = await page.request.get(`${app.url}/api/result.pdf`);
  const { text: printed } = await readPdf(await pdf.body());
  const signs = (text: string) => text.replace(/[^\p{L}\p{N}]+/gu, '');
  expect(signs(printed)).toContain(signs(total));
  expect(signs(printed)).toContain(signs('Which share is this?'));
  for (const heading of await page.getByRole('article').getByRole('heading', { level: 2 }).allInnerTexts())
    expect(signs(printed)).toContain(signs(heading.split('\n')[0]!));
});
