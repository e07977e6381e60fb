import { catalogueTexts } from './catalogueTexts';
import type { Page, Response } from '@playwright/test';
import { hasNoBarriers } from './barriers';
import { expect, test, type TestApp } from './testApp';
import { Candidate } from './people/Candidate';
import { leftBehind, readableOf } from './stored';
import { openedCopies } from './openedCopies';

test.use({ serviceWorkers: 'allow' });

/** Collects every byte that a page is sent by the API. */
function listen(page: Page): { all: () => Promise<string> } {
  const bodies: Promise<string>[] = [];
  const heard = (response: Response) => {
    // A stream of events has no end to wait for.
    if (!response.url().includes('/api/') || response.url().endsWith('/stream')) return;
    bodies.push(
      response.body().then(
        (body) => body.toString('utf8'),
        () => '',
      ),
    );
  };
  page.on('response', heard);
  return { all: async () => (await Promise.all(bodies)).join('\n') };
}

const STRONGEST = `def strongest(lots):
    best, best_share = "", -1.0
    for lot in lots:
        if lot["sown"] and lot["up"] / lot["sown"] > best_share:
            best, best_share = lot["name"], lot["up"] / lot["sown"]
    return best
`;

const HALF = `function days_to_half(counts, sown) {
  for (let i = 0; i < counts.length; i++) if (counts[i] >= sown / 2) return i + 1;
  return -1;
}
`;

const NOTE = `On the night of 9 March at 21:40 the supply to bay 3 dipped and the alarm rang at an empty desk. The bay stood at 11 degrees for about nine hours. Lots K-2 and K-4 were inside; K-1 and K-3 had been moved. The first count of K-4 gave 163, the second 148, because split seed coats had been counted. By the rule of root length 148 is right. First recount K-2 and K-4, then mark both lots, then let the alarm ring the person on call.`;

interface Question {
  readonly source: { readonly tabs: readonly { readonly body: object }[] } | null;
  readonly parts: readonly { readonly prompt: object }[];
}

/** The questions of the round, as they are published: to take them from the demo would load all of the product here. */
const questionsOf = (app: TestApp): Question[] =>
  app
    .rows<{ document: string }>(
      `select v.document from rounds r join paper_versions p on p.id = r.paper_version_id
       join json_each(p.document, '$.sections') s join json_each(s.value, '$.items') e
       join items i on i.key = e.value ->> '$.key'
       join item_versions v on v.item_id = i.id and v.version = e.value ->> '$.version'
       where r.key = 'technician-november'`,
    )
    .map(({ document }) => JSON.parse(document) as Question);

/** Words of every question and source, which nobody may read before the start. */
function wordsOf(questions: readonly Question[]): string[] {
  const texts: string[] = [];
  const collect = (key: string, value: unknown) => {
    if (key === 'text' && typeof value === 'string') texts.push(value);
    return value;
  };
  for (const { parts, source } of questions)
    for (const text of [...parts.map((part) => part.prompt), ...(source?.tabs ?? []).map((tab) => tab.body)])
      JSON.parse(JSON.stringify(text), collect);
  return (
    texts
      // The longest run of plain words in each.
      .map((text) => (text.match(/[A-Za-z ,]+/g) ?? ['']).sort((x, y) => y.length - x.length)[0].trim())
      .filter((text) => text.length > 12)
  );
}

/** Strings of the keys and hidden cases that no candidate may be sent before the results. */
const SECRETS = [
  'h-equal',
  'M-8817',
  'Z-9931',
  '"right":',
  '"accepted":',
  'scheme',
  'Usual lots',
  'K-4’s counts differ',
  '71.25',
];

/** Figures of hidden cases. Hashes and names that were drawn hold any figure by chance: they are taken out first. */
const SECRET_FIGURES = /(?<!\d)(7717|8806)(?!\d)/;
const withoutDrawn = (text: string): string =>
  text.replaceAll(/[\w-]{16,}/g, (word) => (/\d/.test(word) && /[a-z]/i.test(word) ? '' : word));

/** Every value of every table, as text. */
const everythingStored = (app: TestApp): string =>
  app
    .rows<{ name: string }>("select name from sqlite_master where type = 'table'")
    .flatMap(({ name }) => app.rows(`select * from "${name}"`))
    .map((row) => JSON.stringify(row))
    .join('\n');

test('from invitation to released result, with every person in it, and no barriers on any screen', async ({
  browser,
  app,
  staff,
}) => {
  const questions = questionsOf(app);
  const questionTexts = wordsOf(questions);
  expect(questionTexts.length).toBeGreaterThan(30);
  const office = await browser.newContext();
  const coordinator = await staff(await office.newPage(), 'coordinator');
  await coordinator.opensRound('Technician, November');
  await hasNoBarriers(coordinator.page, 'round');
  await coordinator.page.getByRole('link', { name: 'See the paper as candidates do' }).click();
  await expect(
    coordinator.page.getByRole('heading', { level: 1, name: 'Germination Data Technician' }),
  ).toBeVisible();
  await expect(coordinator.page.getByText('10 questions · 48 marks · 60 minutes')).toBeVisible();
  await hasNoBarriers(coordinator.page, 'paper');
  await coordinator.opensRound('Technician, November');
  await coordinator.page.getByRole('button', { name: 'Invite a candidate' }).click();
  await hasNoBarriers(coordinator.page, 'invite');
  await coordinator.page.keyboard.press('Escape');
  await coordinator.invites('Aurelia Nightingale-Osei', 'aurelia@example.org', 50);
  await expect(coordinator.page.getByText('test-window.ics')).toBeVisible();
  await hasNoBarriers(coordinator.page, 'outbox');
  await coordinator.page.getByRole('button', { name: 'Make a personal link' }).click();
  const opened = office.waitForEvent('page');
  await coordinator.page.getByRole('link', { name: 'Open the link as the candidate would' }).click();
  const link = (await opened).url();

  const home = await browser.newContext();
  const page = await home.newPage();
  const sentToCandidate = listen(page);
  const aurelia = new Candidate(page, link);
  await aurelia.opensLink();
  await expect(page.getByText('Aurelia Nightingale-Osei')).toBeVisible();
  await hasNoBarriers(page, 'details');
  await aurelia.confirmsDetails();
  await hasNoBarriers(page, 'checks');
  await aurelia.passesChecks();
  // It becomes usable when the camera has seen a face; until then its colours change.
  await expect(page.getByRole('button', { name: 'Take the picture' })).toBeEnabled();
  await hasNoBarriers(page, 'picture');
  await aurelia.takesPicture();
  await hasNoBarriers(page, 'rules');
  await aurelia.acceptsRules();
  await hasNoBarriers(page, 'cover');
  await expect(page.getByText('1 h 30 min', { exact: true })).toBeVisible();
  // Reading the cover costs nothing: ten minutes pass before the start.
  await app.advance(10);
  // The whole paper is on the device, and not a word of it can be read before the start.
  await expect(page.getByText('The whole paper is on this device')).toBeVisible();
  const early = await sentToCandidate.all();
  for (const text of questionTexts) expect(early).not.toContain(text);
  expect(await readableOf(page, questionTexts)).toEqual([]);
  await aurelia.starts();
  await expect(page.getByRole('timer')).toHaveText(/^1:(30:00|29:5\d)$/);

  await aurelia.chooses('The young root');
  await aurelia.goesTo(2);
  await aurelia.chooses('Tray 12: 126 of 200');
  await expect(page.getByText('Choose 1 more')).toBeVisible();
  await aurelia.chooses('Tray 14: 57 of 90');
  await page.getByLabel('Tray 11: 150 of 200', { exact: true }).click();
  await expect(page.getByText('You can choose only 2. Remove one choice first.')).toBeVisible();
  await page.getByRole('button', { name: 'Strike out Tray 11' }).click();
  await aurelia.goesTo(3);
  await aurelia.entersFigure('−19');
  await aurelia.goesTo(4);
  await page.getByRole('button', { name: 'Move Take the tray out of the bay up' }).click();
  await page.getByRole('button', { name: 'Move Read the lot from the label up' }).click();
  await page.getByRole('button', { name: 'Move Read the lot from the label up' }).click();
  await page
    .getByRole('button', { name: 'Move Count the seeds whose root is as long as the seed up' })
    .click();
  await page
    .getByRole('button', { name: 'Move Count the seeds whose root is as long as the seed up' })
    .click();
  await aurelia.goesTo(5);
  await aurelia.chooses('K-2', 'K-4');
  await aurelia.entersFigure('71,25');
  await expect(page.getByText('Give 1 decimal place; this number has 2')).toBeVisible();
  await aurelia.entersFigure('71,3');
  await aurelia.fillsGap(1, 'kept');
  await aurelia.fillsGap(2, '65');
  await aurelia.fillsGap(3, 'third');
  await hasNoBarriers(page, 'a question beside its source');
  await page.getByRole('button', { name: 'Flag', exact: true }).click();
  await aurelia.goesTo(8);
  await aurelia.writes(NOTE);
  await aurelia.goesTo(9);
  await aurelia.programs('Python', STRONGEST);
  await aurelia.triesAllCases();
  await expect(page.getByText('3 of 3 as expected')).toBeVisible({ timeout: 45_000 });
  await aurelia.goesTo(10);
  await aurelia.programs('JavaScript', HALF);
  await aurelia.triesAllCases();
  await expect(page.getByText('2 of 3 as expected')).toBeVisible({ timeout: 45_000 });
  await aurelia.isSaved();
  await aurelia.looksBack();
  await hasNoBarriers(page, 'last look');
  await expect(page.getByText('2 questions are not done, worth 7 of 48 marks.')).toBeVisible();
  await page.getByRole('button', { name: 'Hand in my paper' }).click();
  await expect(page.getByText('Question 6, worth 3 marks, is unopened.')).toBeVisible();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Hand in my paper' }).click();
  await expect(aurelia.heading('Your paper is handed in')).toBeVisible();
  await expect(page.getByText(/^[A-Z0-9]{4}-[A-Z0-9]{4}-[A-Z0-9]{4}$/)).toBeVisible();
  await expect(page.getByText(/^Your result is expected by/)).toBeVisible();
  await hasNoBarriers(page, 'receipt');
  const heard = await sentToCandidate.all();
  for (const text of questionTexts) expect(heard).not.toContain(text);
  // What the seal holds is the candidate's copy, and nothing of the key.
  const copies = openedCopies(app);
  for (const text of questionTexts) expect(copies).toContain(text);
  for (const secret of SECRETS) expect(heard + copies).not.toContain(secret);
  expect(withoutDrawn(heard + copies)).not.toMatch(SECRET_FIGURES);
  await expect.poll(() => leftBehind(page)).toEqual([]);
  await app.doJobs();
  await page.reload();
  await expect(page.getByText('One assessor is marking “Incident note”.')).toBeVisible();

  const markingRoom = await browser.newContext();
  const desk = await markingRoom.newPage();
  const sentToAssessor = listen(desk);
  const assessor = await staff(desk, 'assessor');
  await assessor.opensPile('Mark item 8 · Incident note');
  await expect(desk.getByText('split seed coats')).toBeVisible();
  await hasNoBarriers(desk, 'marking table');
  await assessor.marksByKeys([3, 4, 3, 1], 'Exact, and in the right order.');
  await expect(desk.getByRole('heading', { name: 'This item is done' })).toBeVisible();
  // A program that both score: the cases are the machine's, how it reads is for people.
  await desk.getByRole('link', { name: 'Back to the list' }).click();
  await assessor.opensPile('Mark item 10 · Days to half');
  await expect(desk.getByRole('region', { name: 'Marked automatically' })).toContainText(
    'Usual trays 0 of 2 cases',
  );
  await assessor.marksByKeys([2], '');
  await expect(desk.getByRole('heading', { name: 'This item is done' })).toBeVisible();
  const seenByAssessor = await sentToAssessor.all();
  expect(seenByAssessor).toContain('split seed coats');
  for (const personal of ['Aurelia', 'Nightingale', 'aurelia@example.org', 'image/jpeg'])
    expect(seenByAssessor).not.toContain(personal);
  const [picture] = app.rows<{ hash: string }>('select hash from file_uses where ended_at is null');
  expect(seenByAssessor).not.toContain(picture!.hash);

  const leadRoom = await browser.newContext();
  const lead = await staff(await leadRoom.newPage(), 'lead');
  await lead.goesTo('Sign-off');
  await hasNoBarriers(lead.page, 'sign-off');
  // “third” was not in the key; the lead accepts it, sees first what would change, and every script is scored again.
  const november = lead.page.getByRole('row').filter({ hasText: 'Technician, November' });
  await november.getByRole('link', { name: 'Questions and corrections' }).click();
  await hasNoBarriers(lead.page, 'questions with their figures');
  await lead.page.getByRole('link', { name: 'Question 5 C · Tray 14' }).click();
  await lead.page.getByRole('button', { name: 'Accept “third”' }).click();
  const correcting = lead.page.getByRole('dialog');
  await expect(correcting.getByText('1 of 1 scripts gets another total.')).toBeVisible();
  // Totals: 0.66 more of the whole script.
  await expect(correcting.getByText(/: 32\.34 → 33$/)).toBeVisible();
  await hasNoBarriers(lead.page, 'correction');
  await correcting.getByLabel(/^Reason/).fill('The note can be read so.');
  await correcting.getByRole('button', { name: 'Apply the correction' }).click();
  await expect(correcting).toHaveCount(0);
  await app.doJobs();
  await expect(lead.page.getByRole('region', { name: 'Corrections' })).toContainText('Counts');
  await lead.goesTo('Sign-off');
  await lead.page.getByRole('button', { name: 'Sign off the marks' }).click();
  await hasNoBarriers(lead.page, 'sign-off question');
  await lead.page.getByRole('alertdialog').getByRole('button', { name: 'Sign off the marks' }).click();
  await expect(lead.page.getByText('signed off')).toBeVisible();

  await page.reload();
  await expect(aurelia.heading('Your paper is handed in')).toBeVisible();
  await expect(page.getByText(/^Everything is marked/)).toBeVisible();
  await coordinator.opensRound('Technician, November');
  await coordinator.confirms('Release the results');
  await expect(coordinator.page.getByText('released', { exact: true })).toBeVisible();

  await page.reload();
  await expect(aurelia.heading('Aurelia Nightingale-Osei')).toBeVisible();
  // A: 1 + 2 + 2 + 3 = 8. B: 2 + 2 + 2 = 6, “third” being accepted. C: 3 + 4 + 3 + 1 = 11 for the note, 6 for the first program;
  // the second: both usual cases wrong, of the edges one wrong, so nothing by the machine, and 2 for how it reads. In
  // all 33.
  await expect(page.getByRole('main')).toContainText('33 of 48');
  await hasNoBarriers(page, 'result sheet');
  await expect(page.getByText('Exact, and in the right order.')).toBeVisible();
  // Other rounds still ask these questions: their right answers wait until those are over.
  const right = page.getByRole('group', { name: 'The right answer' });
  await expect(
    page.getByText('Right answers are shown when these questions are no longer in use'),
  ).toBeVisible();
  await expect(right).toHaveCount(0);
  app.change('update rounds set closes_at = ?', Date.now() - 1);
  await page.reload();
  await expect(right.filter({ hasText: 'sown on damp sand' })).toBeVisible();
  await expect(page.getByRole('group', { name: 'A model answer' }).first()).toContainText(
    'On the night of 9 March',
  );
  await expect(page.getByText('explained', { exact: true })).toBeVisible();
  await expect(page.getByRole('group', { name: 'Explanation' }).first()).toBeVisible();
  await test.step('on a phone: from the list of questions to a note and back in two presses', async () => {
    await page.setViewportSize({ width: 360, height: 740 });
    const index = page.getByRole('navigation', { name: 'Questions on this sheet' });
    const entry = index.getByRole('link', { name: /Incident note.*note/ });
    await entry.scrollIntoViewIfNeeded();
    const comment = page.getByText('Exact, and in the right order.');
    await expect(comment).not.toBeInViewport();
    await entry.click();
    const card = page.locator('article').filter({ hasText: 'Incident note' });
    await expect(card.getByRole('heading', { name: /Incident note/ })).toBeInViewport();
    await card.getByRole('link', { name: 'Back to the list of questions' }).click();
    await expect(index.getByRole('heading')).toBeInViewport();
    await index.getByRole('checkbox', { name: 'Only where marks were lost' }).check();
    await expect(page.getByRole('heading', { name: /^Question 1 / })).toHaveCount(0);
    await hasNoBarriers(page, 'result sheet on a phone');
    await index.getByRole('checkbox', { name: 'Only where marks were lost' }).uncheck();
    await page.setViewportSize({ width: 1280, height: 800 });
  });
  await test.step('a released result: a miskeyed choice put right and taken back, a part withdrawn, full marks', async () => {
    const corrected = lead.page.getByRole('region', { name: 'Corrections' });
    const total = (marks: string) => expect(page.getByRole('main')).toContainText(`${marks} of 48`);
    const lettersOut = () =>
      app.rows<{ n: number }>("select count(*) as n from letters where facts like '%result changed%'")[0]!.n;
    const opensPart = async (name: string) => {
      await lead.goesTo('Sign-off');
      await november.getByRole('link', { name: 'Questions and corrections' }).click();
      await lead.page.getByRole('link', { name }).click();
    };
    const applies = async (reason: string, moves: RegExp) => {
      await expect(correcting.getByText(moves)).toBeVisible();
      await correcting.getByLabel(/^Reason/).fill(reason);
      await correcting.getByRole('button', { name: 'Apply the correction' }).click();
      await expect(correcting).toHaveCount(0);
      await app.doJobs();
    };
    // As a lead wants it who lets released results fall: each step shows what it changes.
    app.change("update rounds set settings = json_set(settings, '$.marksMayFall', json('true'))");
    await opensPart('Question 1 · Parts of a seed');
    await lead.page.getByRole('button', { name: 'Change the right answer' }).click();
    await correcting.getByLabel('The seed coat').check();
    await correcting.getByRole('button', { name: 'Show what changes' }).click();
    await applies('The drawing shows the coat.', /: 33 → 32/);
    await total('32');
    await expect(page.getByText(/question 1: 1 became 0.*The drawing shows the coat\./)).toBeVisible();
    expect(lettersOut()).toBe(1);
    await corrected.getByRole('button', { name: 'Take back: Changed the right answer' }).click();
    await applies('The drawing was another one.', /: 32 → 33/);
    await total('33');
    expect(lettersOut()).toBe(2);
    await lead.page.getByRole('button', { name: 'Withdraw it' }).click();
    // 32 of the other 47 marks: 32 · 48 / 47 = 32.68….
    await applies('Two parts can be meant.', /: 33 → 32\.68/);
    await total('32.68');
    await expect(page.getByText('32 of 47 marks, scaled to 48 marks')).toBeVisible();
    await expect(page.getByText('withdrawn: does not count')).toBeVisible();
    await hasNoBarriers(page, 'result sheet with a withdrawn part');
    await corrected.getByRole('button', { name: 'Take back: Withdrew the question' }).click();
    await applies('The board has decided otherwise.', /: 32\.68 → 33/);
    await opensPart('Question 10 · Days to half');
    await lead.page.getByRole('button', { name: 'Full marks' }).click();
    await correcting.getByRole('button', { name: 'Show what changes' }).click();
    // Of 9 marks it had 2.
    await applies('The cases were wrong.', /: 33 → 40/);
    await total('40');
    expect(lettersOut()).toBe(5);
  });
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'PDF' }).click();
  const pdf = await (await download).createReadStream();
  const [head] = (await pdf.take(1).toArray()) as Buffer[];
  expect(head!.subarray(0, 5).toString()).toBe('%PDF-');
  // The journal holds what the sheet shows: the paper is whole in the database.
  const targets = app.rows<{ target: string }>("select distinct target from journal where about = 'answer'");
  expect(targets).toHaveLength(questions.flatMap((item) => item.parts).length - 3);
  // Codes with values are stored, never what our catalogues say.
  const texts = catalogueTexts();
  expect(texts.length).toBeGreaterThan(300);
  const stored = everythingStored(app);
  expect(stored).toContain('split seed coats');
  expect(texts.filter((text) => stored.includes(text))).toEqual([]);
});
