import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useContext, useEffect, useState } from 'react';
import { expect, it } from 'vitest';
import type { Document, Inline } from '../../core/documents/document';
import type { Question } from '../../core/papers/candidatePaper';
import { faultsOf } from '../testing/faultsOf';
import { PhraseDeskContext } from './phraseDesk';
import { PhraseScope } from './PhraseScope';
import { SourcePane } from './SourcePane';

const phrase = (key: string, text: string): Inline => ({
  type: 'phrase',
  key,
  children: [{ type: 'text', text }],
});
const body: Document = {
  format: 1,
  blocks: [
    {
      type: 'paragraph',
      children: [
        phrase('case', 'a corky case'),
        { type: 'text', text: ' and ' },
        phrase('cold', 'damp cold'),
      ],
    },
  ],
};
const part = (key: string) => ({ target: `plants/${key}` }) as Question['parts'][number];
const question = {
  source: { key: 's', tabs: [{ title: 'Plants', body }] },
  parts: [part('A'), part('B')],
} as unknown as Question;

/** A kind for tests: what is pressed in the source is chosen (A), or lies in the hand until it is put down (B). */
function TestKind({ target, how }: { readonly target: string; readonly how: 'choose' | 'pick' }) {
  const { phrases, use, touch } = useContext(PhraseDeskContext);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [down, setDown] = useState<readonly string[]>([]);
  useEffect(() => {
    const onPress = (name: string) =>
      setChosen((before) =>
        before.includes(name)
          ? before.filter((one) => one !== name)
          : how === 'pick'
            ? [name]
            : [...before, name],
      );
    use(target, { how, chosen: new Set(chosen), onPress });
    return () => use(target, null);
  }, [use, target, how, chosen]);
  const words = (names: readonly string[]) =>
    names.map((name) => phrases.find((one) => one.name === name)!.text).join(', ');
  return (
    <div onFocusCapture={() => touch(target)}>
      <button
        type="button"
        onClick={() => {
          setDown([...down, ...chosen]);
          setChosen([]);
        }}
      >
        Put down {target}
      </button>
      <output aria-label={target}>{how === 'pick' ? words(down) : words(chosen)}</output>
    </div>
  );
}

const show = () =>
  render(
    <main>
      <PhraseScope inView={question}>
        <SourcePane source={question.source!} />
        <TestKind target="plants/A" how="choose" />
        <TestKind target="plants/B" how="pick" />
      </PhraseScope>
    </main>,
  );
const inSource = (name: string) => screen.getByRole('button', { name });
const told = (key: string) => screen.getByRole('status', { name: `plants/${key}` });

it('phrases of a source are chosen by pointer and by keys, and told as pressed', async () => {
  const { container } = show();
  await userEvent.click(inSource('damp cold'));
  expect(inSource('damp cold')).toHaveAttribute('aria-pressed', 'true');
  expect(told('A')).toHaveTextContent('damp cold');
  inSource('a corky case').focus();
  await userEvent.keyboard('{Enter}');
  expect(told('A')).toHaveTextContent('damp cold, a corky case');
  await userEvent.keyboard(' ');
  expect(inSource('a corky case')).toHaveAttribute('aria-pressed', 'false');
  expect(told('A')).toHaveTextContent('damp cold');
  expect(await faultsOf(container)).toEqual([]);
});

it('the part that was touched last has them: one is picked up and put down', async () => {
  show();
  screen.getByRole('button', { name: 'Put down plants/B' }).focus();
  await userEvent.click(inSource('a corky case'));
  await userEvent.click(inSource('damp cold'));
  // In the hand there is one.
  expect(inSource('a corky case')).toHaveAttribute('aria-pressed', 'false');
  await userEvent.click(screen.getByRole('button', { name: 'Put down plants/B' }));
  expect([told('A').textContent, told('B').textContent]).toEqual(['', 'damp cold']);
  expect(inSource('damp cold')).toHaveAttribute('aria-pressed', 'false');
});

it('without a part that works with them they are words like others', () => {
  render(
    <PhraseScope inView={question}>
      <SourcePane source={question.source!} />
    </PhraseScope>,
  );
  expect(screen.queryByRole('button')).toBeNull();
  expect(screen.getByText('damp cold')).toBeVisible();
});
