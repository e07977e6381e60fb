import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeAll, expect, it, vi } from 'vitest';
import { samples as code } from '../../core/kinds/code/samples';
import { samples as gaps } from '../../core/kinds/gaps/samples';
import { samples as numbers } from '../../core/kinds/number/samples';
import { samples as choices } from '../../core/kinds/choice/samples';
import type { KindName } from '../../core/kinds/kindNames';
import { hasKeyForm, keyForms } from './keyForms';

beforeAll(() => keyForms.load(['choice', 'code', 'gaps', 'number']));

function open(kind: KindName, content: unknown) {
  const onKey = vi.fn();
  render(keyForms.draw(kind, { content: content as never, onKey }));
  return () => onKey.mock.lastCall?.[0] as unknown;
}

it('of one right option is chosen among all, of several ticked, and none is no key', async () => {
  const several = choices.find(({ content }) => content.asked.mode === 'several')!.content;
  const said = open('choice', several);
  for (const key of several.key.right) {
    const { text } = several.asked.options.find((option) => option.key === key)!;
    await userEvent.click(screen.getByRole('checkbox', { name: text }));
  }
  expect(said()).toBeNull();
  await userEvent.click(screen.getByRole('checkbox', { name: several.asked.options[1]!.text }));
  expect(said()).toEqual({ right: [several.asked.options[1]!.key] });
});

it('of a number has its figures with their shares, and what is near enough; what is later accepted stays', async () => {
  const content = { ...numbers[0]!.content, key: { ...numbers[0]!.content.key, also: ['7/3'] } };
  const said = open('number', content);
  const figure = screen.getAllByLabelText('Number')[0]!;
  await userEvent.clear(figure);
  expect(said()).toBeNull();
  await userEvent.type(figure, ' 8.5 ');
  const [first, ...others] = content.key.accepted;
  expect(said()).toEqual({ ...content.key, accepted: [{ ...first, figure: '8.5' }, ...others] });
  await userEvent.click(screen.getByRole('button', { name: 'Add a number' }));
  expect(said()).toBeNull();
  await userEvent.type(screen.getAllByLabelText('Number').at(-1)!, '9');
  expect(said()).toMatchObject({ accepted: [{ figure: '8.5' }, ...others, { figure: '9', percent: 100 }] });
});

it('of gaps has the words of each, a line each, and the option of a list', async () => {
  const { content } = gaps.find(({ content: { key } }) => {
    const by = Object.values(key.gaps).map((rule) => rule.by);
    return by.includes('typing') && by.includes('list');
  })!;
  const said = open('gaps', content) as () => typeof content.key | null;
  const typed = screen.getAllByRole('textbox')[0]!;
  await userEvent.clear(typed);
  expect(said()).toBeNull();
  await userEvent.type(typed, 'a tenth\n\n  one in ten');
  const [, rule] = Object.entries(said()!.gaps).find(([, one]) => one.by === 'typing')!;
  expect(rule).toMatchObject({
    accepted: [
      { text: 'a tenth', percent: 100 },
      { text: 'one in ten', percent: 100 },
      // What earns a part of the marks stays.
      { text: 'decimal', percent: 50 },
    ],
  });
});

it('of a program has the shares of its groups of cases; nothing else of its key changes', async () => {
  const [sample] = code;
  const [group] = sample!.content.key.groups;
  const own = { ...sample!.content.key, groups: [group!, { ...group!, key: 'g2', title: 'Edges' }] };
  const content = { ...sample!.content, key: own };
  const said = open('code', content);
  const [first] = screen.getAllByRole('spinbutton');
  await userEvent.clear(first!);
  expect(said()).toBeNull();
  await userEvent.type(first!, '7');
  const groups = content.key.groups.map((group, i) => ({
    ...group,
    weight: i === 0 ? 7 : (group.weight ?? 1),
  }));
  expect(said()).toEqual({ ...content.key, groups });
});

it('of other kinds is brought as a file', () => {
  expect([hasKeyForm('choice'), hasKeyForm('plot')]).toEqual([true, false]);
});
