import { aidNames } from '../../core/kit/aids';
import { emptyDocument, plainDocument } from '../../core/documents/document';
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import type { Sample } from '../../core/kinds/contract';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { kindNames, type KindName } from '../../core/kinds/kindNames';
import { isDecided } from '../../core/kinds/contract';
import { keyKindOf } from '../../core/kinds/keyKinds';
import { sumMarks } from '../../core/marks';
import { seededRandom } from '../../core/random';
import { placeFor } from '../../core/testing/scoreAlone';
import { noSource } from './answerProps';
import { answers, featuresFor, layoutOf } from './answers';
import { ComponentShelf } from '../ui/ComponentShelf';
import { PageBox } from '../pages/pageBox';
import { readings } from './readings';
import { faultsOf } from '../testing/faultsOf';
import { say } from '../words';

type AnySample = Sample<unknown, unknown, unknown>;

const modules = import.meta.glob<{ samples: AnySample[] }>('../../core/kinds/*/samples.ts', { eager: true });
const samplesOf = (kind: KindName) => modules[`../../core/kinds/${kind}/samples.ts`]!.samples;
const choiceIn = (n: number) => ['choice', samplesOf('choice')[n]!] as const;

/** The field for mathematics draws and measures, which is not possible here; its stories are told in `e2e/`. */
vi.mock('mathlive', () => {
  class Field extends HTMLElement {
    static fontsDirectory: string | null = null;
    static soundsDirectory: string | null = null;
    static decimalSeparator = '.';
    value = '';
    menuItems: unknown[] = [];
    getValue = () => this.value;
    setValue = (value: string) => (this.value = value);
    executeCommand = () => true;
  }
  customElements.define('math-field', Field);
  return { MathfieldElement: Field, convertAsciiMathToLatex: (text: string) => text };
});

/** Programs run in workers, which there are none of here; their stories are told in `e2e/`. */
class NoWorker {
  postMessage = () => undefined;
  addEventListener = () => undefined;
  terminate = () => undefined;
}
vi.stubGlobal('Worker', NoWorker);
// The program editor measures text, which has no size here.
Range.prototype.getClientRects = () => [] as unknown as DOMRectList;

beforeAll(() => Promise.all([answers.load(kindNames), readings.load(kindNames)]));

/** A sample as a candidate sees it; options that are shuffled stand in their order. */
function shownOf(kind: KindName, { content, marks }: AnySample) {
  const key = keyKindOf(kind);
  return key.show(content.asked, key.arrange(content, seededRandom('shown')), placeFor(marks));
}

/** An answering component as the desk holds it; gives what was answered and put down last. */
function answering(kind: KindName, sample: AnySample, from?: unknown) {
  const shown = shownOf(kind, sample);
  const last = {
    response: from ?? candidateKindOf(kind).empty(shown),
    events: {} as Readonly<Record<string, unknown>>,
    changes: 0,
  };
  function Held() {
    const [response, setResponse] = useState(last.response);
    const [events, setEvents] = useState(last.events);
    return (
      <main>
        <p id="prompt">What is it?</p>
        <p id="need">Something is missing.</p>
        {answers.draw(kind, {
          shown,
          response,
          events,
          files: new PageBox(null),
          phone: null,
          aids: aidNames,
          promptId: 'prompt',
          needId: 'need',
          prompt: plainDocument('What is it?'),
          target: 'x/A',
          source: noSource,
          onChange: (next) => {
            last.response = next;
            last.changes++;
            setResponse(next);
          },
          onEvent: (name, value) => {
            last.events = { ...last.events, [name]: value };
            setEvents(last.events);
          },
        })}
      </main>
    );
  }
  const { container } = render(<Held />);
  return Object.assign(last, { container });
}
const score = (kind: KindName, { content, marks }: AnySample, response: unknown) => {
  const key = keyKindOf(kind);
  const arrangement = key.arrange(content, seededRandom('shown'));
  const more = { siblings: {}, evidence: {}, place: placeFor(marks) };
  return sumMarks(
    key
      .score({ content, response, arrangement, ...more })
      .filter(isDecided)
      .map((c) => c.hundredths),
  );
};

/** Everything that can be pressed or written in. */
const CONTROLS =
  'input, select, textarea, button, math-field, [contenteditable="true"], [role="radio"], [role="checkbox"], [role="slider"], [tabindex="0"]';

/** As a person would: by pointer, then by the keys that the control knows. */
async function press(user: ReturnType<typeof userEvent.setup>, control: HTMLElement): Promise<void> {
  if (control.matches('math-field')) {
    Object.assign(control, { value: 'x+1' });
    control.dispatchEvent(new Event('input', { bubbles: true }));
  } else if (control instanceof HTMLSelectElement)
    await user.selectOptions(control, control.options[1]!.value);
  else if (control instanceof HTMLInputElement && control.type === 'file')
    await user.upload(control, new File(['%PDF-1.7'], 'page.pdf', { type: 'application/pdf' }));
  else if (control.matches('input[type="text"], input:not([type]), textarea, [contenteditable="true"]')) {
    await user.click(control);
    await user.keyboard('1');
  } else {
    await user.click(control);
    await user.keyboard('{ArrowRight}{Enter}');
  }
}

describe.each(kindNames)('answering and reading %s', (kind) => {
  it('draws every sample, empty and answered, so that assistive technology finds its way', async () => {
    for (const sample of samplesOf(kind))
      for (const response of [undefined, sample.best]) {
        const { container } = answering(kind, sample, response);
        expect(await faultsOf(container)).toEqual([]);
        cleanup();
      }
  });

  it('says what was answered when a control is really pressed, or written in', async () => {
    const user = userEvent.setup();
    let changes = 0;
    for (const sample of samplesOf(kind)) {
      const held = answering(kind, sample);
      for (const control of held.container.querySelectorAll<HTMLElement>(CONTROLS))
        if (held.changes === 0) await press(user, control);
      changes += held.changes;
      cleanup();
    }
    expect(changes).toBeGreaterThan(0);
  });

  it('shows what was answered in words, and changes nothing', async () => {
    for (const sample of samplesOf(kind)) {
      const shown = shownOf(kind, sample);
      const { container, unmount } = render(
        <main>{readings.draw(kind, { shown, response: sample.best, right: null, credits: [] })}</main>,
      );
      const text = container.textContent.replace(/\s+/g, ' ');
      const { text: described } = candidateKindOf(kind).describe(shown, sample.best, say);
      for (const word of described.split(/[\s,;]+/).filter((w) => /^\w{2,}$/.test(w)))
        expect(text).toContain(word);
      expect(within(container).queryAllByRole('textbox')).toEqual([]);
      expect(await faultsOf(container)).toEqual([]);
      unmount();
    }
  });
});

describe('one of several', () => {
  it('is chosen by pressing, changed, and never more than one', async () => {
    const last = answering(...choiceIn(0));
    const group = screen.getByRole('radiogroup', { name: 'What is it?' });
    expect(group).toHaveAccessibleDescription('Something is missing.');
    await userEvent.click(screen.getByRole('radio', { name: 'Sea kale' }));
    await userEvent.click(screen.getByRole('radio', { name: 'Sea holly' }));
    expect(last.response).toEqual({ chosen: ['holly'] });
    expect(score('choice', samplesOf('choice')[0]!, last.response)).toBe(100);
  });

  it('strikes out what is wrong; struck options are not chosen, chosen ones not struck', async () => {
    const last = answering(...choiceIn(0));
    await userEvent.click(screen.getByRole('radio', { name: 'Sea kale' }));
    await userEvent.click(screen.getByRole('button', { name: 'Strike out Sea kale' }));
    expect([last.response, last.events.strike]).toEqual([{ chosen: [] }, ['kale']]);
    await userEvent.click(screen.getByRole('radio', { name: 'Sea kale' }));
    expect([last.response, last.events.strike]).toEqual([{ chosen: ['kale'] }, []]);
    await userEvent.click(screen.getByRole('button', { name: 'Strike out Sea rush' }));
    await userEvent.click(screen.getByRole('button', { name: 'Restore Sea rush' }));
    expect(last.events.strike).toEqual([]);
  });
});

describe('an option', () => {
  it('says how many are to be chosen, and is heard by itself without being chosen', async () => {
    const last = answering(...choiceIn(0));
    expect(screen.getByText('Choose one')).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'Listen: Sea kale' }));
    expect(screen.getByRole('button', { name: 'Stop reading: Sea kale' })).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'Stop reading: Sea kale' }));
    expect(screen.getByRole('button', { name: 'Listen: Sea kale' })).toBeVisible();
    expect(last.changes).toBe(0);
  });
});

describe('two of several', () => {
  it('are kept to: a third is refused in words, and can be taken when one is taken back', async () => {
    const last = answering(...choiceIn(1));
    for (const name of ['Sea kale', 'Sea rush', 'Sea thrift'])
      await userEvent.click(screen.getByRole('checkbox', { name }));
    expect(last.response).toEqual({ chosen: ['kale', 'rush'] });
    expect(screen.getByRole('status')).toHaveTextContent('You can choose only 2');
    expect(score('choice', samplesOf('choice')[1]!, last.response)).toBe(200);
    await userEvent.click(screen.getByRole('checkbox', { name: 'Sea rush' }));
    await userEvent.click(screen.getByRole('checkbox', { name: 'Sea thrift' }));
    expect(last.response).toEqual({ chosen: ['kale', 'thrift'] });
    expect(screen.getByRole('status')).toBeEmptyDOMElement();
  });
});

describe('a figure', () => {
  it.each([
    ['1,234', 'Read as 1\u202F234'],
    ['1234', null],
    ['12.50', null],
  ])('typed as %s says how it is read where that differs', async (typed, told) => {
    answering('number', samplesOf('number')[0]!);
    await userEvent.type(screen.getByRole('textbox'), typed);
    const said = screen.queryByText(/^Read as/);
    if (told === null) expect(said).toBeNull();
    else expect(said).toHaveTextContent(told.replace('\u202F', ' '), { normalizeWhitespace: true });
  });

  it('is kept as it was typed', async () => {
    const last = answering('number', samplesOf('number')[0]!);
    const field = screen.getByRole('textbox', { name: 'What is it?' });
    expect(field).toHaveAttribute('inputmode', 'decimal');
    await userEvent.type(field, '71.3');
    expect(last.response).toEqual({ typed: '71.3' });
    expect(score('number', samplesOf('number')[0]!, last.response)).toBe(200);
  });

  it('says where a minus is possible, and gives a keyboard that has one', () => {
    answering('number', samplesOf('number')[1]!);
    expect(screen.getByRole('textbox')).toHaveAttribute('inputmode', 'text');
    expect(screen.getByText('A minus sign is possible here.')).toBeVisible();
  });
});

describe('gaps', () => {
  it('are filled in their places, from a list and by typing', async () => {
    const last = answering('gaps', samplesOf('gaps')[0]!);
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Gap 1' }), 'kept');
    await userEvent.type(screen.getByRole('textbox', { name: 'Gap 2' }), 'tenht');
    expect(last.response).toEqual({ filled: { a: 'kept', b: 'tenht' } });
    // One slip is forgiven.
    expect(score('gaps', samplesOf('gaps')[0]!, last.response)).toBe(201);
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Gap 1' }), '');
    const shown = shownOf('gaps', samplesOf('gaps')[0]!);
    expect(candidateKindOf('gaps').progress(shown, last.response).state).toBe('part');
  });
});

describe('an order', () => {
  const order = () => screen.getAllByRole('listitem').map((li) => /step \w/.exec(li.textContent)![0]);

  it('is made by arrow buttons, whose ends go no further', async () => {
    const last = answering('order', samplesOf('order')[0]!);
    expect(order()).toEqual(['step c', 'step a', 'step d', 'step b']);
    expect(screen.getByRole('button', { name: 'Move step c up' })).toBeDisabled();
    expect(screen.getByRole('button', { name: 'Move step b down' })).toBeDisabled();
    await userEvent.click(screen.getByRole('button', { name: 'Move step a up' }));
    await userEvent.click(screen.getByRole('button', { name: 'Move step b up' }));
    await userEvent.click(screen.getByRole('button', { name: 'Move step b up' }));
    expect(order()).toEqual(['step a', 'step b', 'step c', 'step d']);
    expect(score('order', samplesOf('order')[0]!, last.response)).toBe(300);
  });

  it('as it stands is an answer only when one says so', async () => {
    const last = answering('order', samplesOf('order')[0]!);
    expect(last.response).toEqual({ sequence: [] });
    await userEvent.click(screen.getByRole('button', { name: 'Keep this order' }));
    expect(last.response).toEqual({ sequence: ['c', 'a', 'd', 'b'] });
    expect(screen.queryByRole('button', { name: 'Keep this order' })).toBeNull();
  });
});

describe('the shelf of components', () => {
  it('draws nothing that was not fetched first, and knows what a kind needs of a browser', () => {
    const props = {
      shown: {},
      response: {},
      events: {},
      promptId: '',
      needId: '',
      prompt: emptyDocument,
      target: '',
    };
    const draw = () => new ComponentShelf(() => Promise.reject(new Error('not asked'))).draw('code', props);
    expect(draw).toThrow('not loaded');
    expect(featuresFor(['choice', 'gaps'])).toEqual([]);
    expect(featuresFor(['choice', 'code', 'code'])).toEqual(['WebAssembly', 'workers']);
    expect(featuresFor(['expression', 'upload'])).toEqual(['ownElements', 'pictures']);
    expect(kindNames.filter((kind) => layoutOf(kind) === 'whole')).toEqual(['code']);
  });
});
