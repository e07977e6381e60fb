import { expect, it } from 'vitest';
import type { VersionStep } from '../../core/observations/review';
import { MINUTE_MS } from '../../core/timing/deadline';
import { essay, Sittings, WRITING } from '../testing/Sittings';
import type { TestDevice } from '../testing/TestDevice';

const of = Sittings.ofThisFile();

const lines = (texts: readonly string[]) => ({
  version: 1,
  response: {
    text: {
      type: 'doc',
      content: texts.map((text) => ({ type: 'paragraph', content: [{ type: 'text', text }] })),
    },
  },
});

/** A sitting on a round of its own, and how its essay came about as staff read it. */
async function sitting() {
  const round = of.newRound();
  const device = await of.start(round);
  const { invitationId: invitation } = of.rowOf(device);
  /** Once it is handed in. */
  const versions = async () => {
    await device.handIn();
    const path = `/rounds/${round}/review/${invitation}/0/versions/${WRITING}`;
    return (await of.app.staff('coordinator').get<VersionStep[]>(path)).body;
  };
  return { device, versions };
}

async function writes(device: TestDevice, value: unknown, afterMs: number) {
  of.app.clock.advance(afterMs);
  await device.answer(WRITING, value);
}

const told = (steps: readonly VersionStep[]) =>
  steps.map((step) => (step.is === 'version' ? [step.added, step.removed] : ['event']));

it('tells each version by its lines that came and went, and takes together what was saved within two minutes', async () => {
  const { device, versions } = await sitting();
  await writes(device, essay('At night'), 0);
  await writes(device, essay('At night the supply'), MINUTE_MS);
  await writes(device, essay('At night the supply failed.'), MINUTE_MS / 2);
  await writes(device, lines(['At night the supply failed.', 'We opened the store.']), 5 * MINUTE_MS);
  await writes(device, essay('All is well.'), 5 * MINUTE_MS);
  const steps = await versions();
  expect(told(steps).slice(0, 1)).toEqual([[1, 0]]);
  expect(steps).toHaveLength(3);
  const [, second, third] = steps as [VersionStep, VersionStep, VersionStep];
  expect(second).toMatchObject({ is: 'version', removed: 0 });
  expect(second.is === 'version' && second.lines.at(-1)).toEqual({
    text: 'We opened the store.',
    added: true,
  });
  expect(third.is === 'version' && third.lines.map(({ text, added }) => [added, text])).toContainEqual([
    true,
    'All is well.',
  ]);
});

it('leaves out a version that changed nothing, and has none of an answer that was never given', async () => {
  const { device, versions } = await sitting();
  const empty = await sitting();
  expect(await empty.versions()).toEqual([]);
  await writes(device, essay('The same'), 0);
  await writes(device, essay('The same'), 5 * MINUTE_MS);
  expect(await versions()).toHaveLength(1);
});

it('tells of a text that is another altogether at once, with the lines cut short', async () => {
  const { device, versions } = await sitting();
  const text = (word: string) =>
    lines(Array.from({ length: 1500 }, (_, i) => `${word} ${i} ${'x'.repeat(20)}`));
  await writes(device, text('first'), 0);
  await writes(device, text('second'), 5 * MINUTE_MS);
  await writes(device, lines(['y'.repeat(5000)]), 5 * MINUTE_MS);
  const steps = await versions();
  expect(steps).toHaveLength(3);
  for (const step of steps) expect(step.is === 'version' && step.lines.length).toBe(40);
  expect(steps[1]!.is === 'version' && steps[1]!.added).toBeGreaterThanOrEqual(1500);
  const last = steps.at(-1)!;
  expect(last.is === 'version' && last.lines.every((line) => line.text.length <= 200)).toBe(true);
});

it('is not for assessors, and not of a part that the form does not have', async () => {
  const round = of.newRound();
  const { invitationId: invitation } = of.rowOf(await of.start(round));
  const path = `/rounds/${round}/review/${invitation}/0/versions`;
  expect((await of.app.staff('assessor').get(`${path}/${WRITING}`)).status).toBe(403);
  expect((await of.app.staff('coordinator').get(`${path}/no-such-item/A`)).status).toBe(404);
});
