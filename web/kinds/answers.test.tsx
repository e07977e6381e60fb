import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Sample } from '../../core/kinds/contract';
import { kindNames, candidateKindOf, type KindName } from '../../core/kinds/candidateKinds';
import { answers, featuresFor, layoutOf } from './answers';
import { readings } from './readings';

const modules = import.meta.glob<{ samples: Sample<unknown, unknown>[] }>('../../core/kinds/*/samples.ts', {
  eager: true,
});
const samplesOf = (kind: KindName) => modules[`../../core/kinds/${kind}/samples.ts`]!.samples;

/** Program editors need a real browser: their stories are told in `e2e/`. */
const HERE = kindNames.filter((kind) => kind !== 'code' && kind !== 'writing');
beforeAll(async () => {
  await Promise.all([answers.load(HERE), readings.load(HERE)]);
});

/** An answering component as the desk holds it; gives what was answered and struck last. */
function answering(kind: KindName, content: unknown) {
  const shown = candidateKindOf(kind).show(content);
  const last = { response: candidateKindOf(kind).empty(shown), struck: [] as string[], changes: 0 };
  function Held() {
    const [response, setResponse] = useState(last.response);
    const [struck, setStruck] = useState<string[]>([]);
    return (
      <>
        <p id="prompt">What is it?</p>
        <p id="need">Something is missing.</p>
        {answers.draw(kind, {
          ...{ shown, response, struck, promptId: 'prompt', needId: 'need', prompt: 'What is it?' },
          target: 'x/A',
          onChange: (next) => {
            last.response = next;
            last.changes++;
            setResponse(next);
          },
          onStrike: (next) => {
            last.struck = next;
            setStruck(next);
          },
        })}
      </>
    );
  }
  render(<Held />);
  return last;
}
const score = (kind: KindName, n: number, response: unknown) => {
  const { content, maximum } = samplesOf(kind)[n]!;
  return candidateKindOf(kind).score({ content, response, maximum, outcomes: undefined }).hundredths;
};

describe('one of several', () => {
  it('is chosen by pressing, changed, and never more than one', async () => {
    const last = answering('choice', samplesOf('choice')[0]!.content);
    const group = screen.getByRole('radiogroup', { name: 'What is it?' });
    expect(group).toHaveAccessibleDescription('Something is missing.');
    await userEvent.click(screen.getByRole('radio', { name: 'Sea kale' }));
    await userEvent.click(screen.getByRole('radio', { name: 'Sea holly' }));
    expect(last.response).toEqual({ chosen: ['holly'] });
    expect(score('choice', 0, last.response)).toBe(100);
  });

  it('strikes out what is wrong; struck options are not chosen, chosen ones not struck', async () => {
    const last = answering('choice', samplesOf('choice')[0]!.content);
    await userEvent.click(screen.getByRole('radio', { name: 'Sea kale' }));
    await userEvent.click(screen.getByRole('button', { name: 'Strike out Sea kale' }));
    expect([last.response, last.struck]).toEqual([{ chosen: [] }, ['kale']]);
    await userEvent.click(screen.getByRole('radio', { name: 'Sea kale' }));
    expect([last.response, last.struck]).toEqual([{ chosen: ['kale'] }, []]);
    await userEvent.click(screen.getByRole('button', { name: 'Strike out Sea rush' }));
    await userEvent.click(screen.getByRole('button', { name: 'Bring back Sea rush' }));
    expect(last.struck).toEqual([]);
  });
});

describe('two of several', () => {
  it('are kept to: a third is refused in words, and can be taken when one is taken back', async () => {
    const last = answering('choice', samplesOf('choice')[1]!.content);
    for (const name of ['Sea kale', 'Sea rush', 'Sea thrift'])
      await userEvent.click(screen.getByRole('checkbox', { name }));
    expect(last.response).toEqual({ chosen: ['kale', 'rush'] });
    expect(screen.getByRole('status')).toHaveTextContent('Only 2 can be chosen');
    expect(score('choice', 1, last.response)).toBe(200);
    await userEvent.click(screen.getByRole('checkbox', { name: 'Sea rush' }));
    await userEvent.click(screen.getByRole('checkbox', { name: 'Sea thrift' }));
    expect(last.response).toEqual({ chosen: ['kale', 'thrift'] });
    expect(screen.getByRole('status')).toBeEmptyDOMElement();
  });
});

describe('a figure', () => {
  it('is kept as it was typed, with a comma too', async () => {
    const last = answering('number', samplesOf('number')[0]!.content);
    const field = screen.getByRole('textbox', { name: 'What is it?' });
    expect(field).toHaveAttribute('inputmode', 'decimal');
    await userEvent.type(field, '71,3');
    expect(last.response).toEqual({ typed: '71,3' });
    expect(score('number', 0, last.response)).toBe(200);
  });

  it('says where a minus is possible, and gives a keyboard that has one', () => {
    answering('number', samplesOf('number')[1]!.content);
    expect(screen.getByRole('textbox')).toHaveAttribute('inputmode', 'text');
    expect(screen.getByText('A minus sign is possible here.')).toBeVisible();
  });
});

describe('gaps', () => {
  it('are filled in their places, from a list and by typing', async () => {
    const last = answering('gaps', samplesOf('gaps')[0]!.content);
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Gap 1' }), 'kept');
    await userEvent.type(screen.getByRole('textbox', { name: 'Gap 2' }), 'tenht');
    expect(last.response).toEqual({ filled: { a: 'kept', b: 'tenht' } });
    // One slip is forgiven.
    expect(score('gaps', 0, last.response)).toBe(200);
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Gap 1' }), '');
    expect(
      candidateKindOf('gaps').progress(
        candidateKindOf('gaps').show(samplesOf('gaps')[0]!.content),
        last.response,
      ).state,
    ).toBe('part');
  });
});

describe('an order', () => {
  const order = () => screen.getAllByRole('listitem').map((li) => /step \w/.exec(li.textContent)![0]);

  it('is made by arrow buttons, whose ends go no further', async () => {
    const last = answering('order', samplesOf('order')[0]!.content);
    expect(order()).toEqual(['step c', 'step a', 'step d', 'step b']);
    expect(screen.getByRole('button', { name: 'Move step c up' })).toBeDisabled();
    expect(screen.getByRole('button', { name: 'Move step b down' })).toBeDisabled();
    await userEvent.click(screen.getByRole('button', { name: 'Move step a up' }));
    await userEvent.click(screen.getByRole('button', { name: 'Move step b up' }));
    await userEvent.click(screen.getByRole('button', { name: 'Move step b up' }));
    expect(order()).toEqual(['step a', 'step b', 'step c', 'step d']);
    expect(score('order', 0, last.response)).toBe(300);
  });

  it('as it stands is an answer only when one says so', async () => {
    const last = answering('order', samplesOf('order')[0]!.content);
    expect(last.response).toEqual({ sequence: [] });
    await userEvent.click(screen.getByRole('button', { name: 'Keep this order' }));
    expect(last.response).toEqual({ sequence: ['c', 'a', 'd', 'b'] });
    expect(screen.queryByRole('button', { name: 'Keep this order' })).toBeNull();
  });
});

describe.each(HERE)('reading %s', (kind) => {
  it('shows every sample’s best answer in words, and changes nothing', () => {
    for (const { content, best } of samplesOf(kind)) {
      const shown = candidateKindOf(kind).show(content);
      const { container, unmount } = render(readings.draw(kind, { shown, response: best }));
      const text = container.textContent.replace(/\s+/g, ' ');
      const words = candidateKindOf(kind)
        .asText(shown, best)
        .split(/[\s,;]+/)
        .filter((w) => /^\w{2,}$/.test(w));
      for (const word of words) expect(text).toContain(word);
      expect(within(container).queryAllByRole('textbox')).toEqual([]);
      unmount();
    }
  });
});

describe('the shelf of components', () => {
  it('draws nothing that was not fetched first, and knows what a kind needs of a browser', () => {
    const props = { shown: {}, response: {}, struck: [], promptId: '', needId: '', prompt: '', target: '' };
    expect(() => answers.draw('code', { ...props, onChange: () => {}, onStrike: () => {} })).toThrow(
      'not loaded',
    );
    expect(featuresFor(['choice', 'gaps'])).toEqual([]);
    expect(featuresFor(['choice', 'code', 'code'])).toEqual(['WebAssembly', 'workers']);
    expect(kindNames.filter((kind) => layoutOf(kind) === 'whole')).toEqual(['code']);
  });
});
