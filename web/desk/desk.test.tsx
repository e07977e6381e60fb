import { guessingOf } from '../../core/papers/guessing';
import { problem } from '../api/client';
import { documentAsText } from '../../core/documents/documentAsText';
import { say } from '../words';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { storeResponse } from '../../core/kinds/stored';
import { sumMarks } from '../../core/marks';
import type { LiveView } from '../../core/live/api';
import { splitForSealing } from '../../core/papers/candidatePaper';
import type { AnswerVersion } from '../../core/sittings/api';
import { answers } from '../kinds/answers';
import { readings } from '../kinds/readings';
import {
  deskInHand,
  deskPaper,
  deskTime,
  renderAtDesk,
  someReceipt,
  type DeskInHand,
} from '../testing/deskWith';
import type { DeskBackend } from './backend';
import { Clock } from './Clock';
import type { DeskState } from './deskStore';
import { Covered } from './Covered';
import { Notices, SaidNotices } from './Notices';
import { Announcer } from '../ui/Announcer';
import { Foot } from './Foot';
import { HandIn } from './HandIn';
import { BreakTool, HandTool } from './HelpTools';
import { LastLook } from './LastLook';
import { Parts } from './Pages';
import { PartView } from './PartView';
import { QuestionView } from './QuestionView';
import { Rail } from './Rail';

let desk: DeskInHand;
afterEach(() => desk.close());
const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const state = () => desk.store.getState();
const change = (more: Partial<DeskState>) => act(() => desk.store.setState(more));
const [first, second] = deskPaper.questions;

it('a part that cannot be drawn takes nothing else of the desk away', async () => {
  vi.spyOn(console, 'error').mockImplementation(() => undefined);
  desk = deskInHand();
  const question = deskPaper.questions.find(({ parts }) => parts.length > 1)!;
  await answers.load(question.parts.map(({ kind }) => kind));
  const draw = answers.draw.bind(answers);
  const broken = vi.spyOn(answers, 'draw').mockImplementation((kind, props) => {
    if (props.target === question.parts[0]!.target) throw new Error('cannot be drawn');
    return draw(kind, props);
  });
  renderAtDesk(
    desk,
    <>
      <Rail />
      <Parts question={question} />
    </>,
  );
  expect(screen.getByRole('alert')).toHaveTextContent('Your saved answers are safe');
  expect(screen.getByRole('navigation', { name: 'Questions' })).toBeVisible();
  const [one, two] = question.parts.map(({ prompt }) => documentAsText(prompt, say));
  expect(document.body).not.toHaveTextContent(one!);
  expect(document.body).toHaveTextContent(two!);
  broken.mockRestore();
  await userEvent.click(screen.getByRole('button', { name: 'Show it again' }));
  expect(document.body).toHaveTextContent(one!);
  vi.restoreAllMocks();
});

describe('the rail', () => {
  it('has every question with its marks and state in words, and goes where one is pressed', async () => {
    desk = deskInHand();
    renderAtDesk(desk, <Rail />);
    const bars = within(screen.getByRole('navigation', { name: 'Questions' })).getAllByRole('button');
    expect(bars).toHaveLength(deskPaper.questions.length);
    expect(bars[0]!).toHaveAccessibleName(
      `Question 1, ${first!.title}, ${sumMarks([first!.marks]) / 100} mark, looked at`,
    );
    expect(bars[0]!).toHaveAttribute('aria-current', 'step');
    await userEvent.click(bars[1]!);
    expect(state().index).toBe(1);
    expect(desk.noted).toContain(`opened ${second!.item}`);
    act(() => state().toggleFlag());
    expect(bars[1]!.getAttribute('aria-label')).toMatch(/, looked at, flagged$/);
  });

  it('counts what is open down to nothing', () => {
    desk = deskInHand({ timed: false });
    renderAtDesk(desk, <Rail />);
    const all = deskPaper.marks / 100;
    expect(screen.getByText(`${all} marks still to do`)).toBeVisible();
    act(() => state().answer('parts-of-a-seed/A', storeResponse('choice', { chosen: ['root'] })));
    expect(screen.getByText(`${all - first!.marks / 100} marks still to do`)).toBeVisible();
  });

  it('draws the pace line once time has gone, and none without the clock', () => {
    desk = deskInHand();
    const { unmount } = renderAtDesk(desk, <Rail />);
    expect(screen.queryByText('you should be here')).toBeNull();
    change({ leftMs: HOUR / 2 });
    expect(screen.getByText('you should be here')).toBeInTheDocument();
    unmount();
    change({ timed: false });
    renderAtDesk(desk, <Rail />);
    expect(screen.queryByText('you should be here')).toBeNull();
  });
});

describe('the clock', () => {
  it('can be hidden and shown, and tells of extra time and of a stop', async () => {
    desk = deskInHand();
    renderAtDesk(desk, <Clock />);
    change({ leftMs: 12 * MINUTE + 5000 });
    expect(screen.getByRole('timer')).toHaveTextContent('12:05');
    await userEvent.click(screen.getByRole('button', { name: 'Hide the clock' }));
    expect(screen.queryByRole('timer')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Show the clock' }));
    expect(screen.getByText(/^left of /)).not.toHaveTextContent('extra');
    change({ time: { ...deskTime, deadlineAt: deskPaper.minutes * MINUTE + 10 * MINUTE } });
    expect(screen.getByText(/your extra time included/)).toBeVisible();
    change({ time: { ...deskTime, stopped: { why: 'pause', since: 0, until: null } } });
    expect(screen.getByText('the invigilator has stopped your clock')).toBeVisible();
  });

  it('is not there in a rehearsal without it', () => {
    desk = deskInHand({ timed: false });
    renderAtDesk(desk, <Clock />);
    expect(screen.queryByRole('timer')).toBeNull();
    expect(screen.getByText('Without the clock')).toBeVisible();
  });
});

describe('the saved line', () => {
  it('says where the answers are, once and always in one place', () => {
    desk = deskInHand();
    renderAtDesk(desk, <Foot />);
    expect(screen.getByText('Every change is saved automatically')).toBeVisible();
    act(() => desk.events.onSaved({ state: 'saving', slow: false }));
    expect(screen.getByText('Saving …')).toBeVisible();
    act(() => desk.events.onSaved({ state: 'kept', since: 0 }));
    change({ now: 132_400 });
    expect(screen.getByText('Saved on this device – connection lost 132 s ago')).toBeVisible();
    act(() => desk.events.onTrouble('device'));
    expect(screen.getByText(/This device cannot save your answers/)).toBeVisible();
    expect(screen.queryByText(/Saved on this device/)).toBeNull();
  });

  it('stands beside the ways on, which lead to the last look at the end', async () => {
    desk = deskInHand();
    renderAtDesk(desk, <Foot />);
    expect(screen.getByRole('button', { name: 'Back' })).toBeDisabled();
    await userEvent.click(screen.getByRole('button', { name: /^Question 2/ }));
    expect(state().index).toBe(1);
    act(() => state().go(deskPaper.questions.length - 1));
    await userEvent.click(screen.getByRole('button', { name: 'Last look' }));
    expect(state().view).toBe('last look');
  });
});

describe('the last look', () => {
  it('lists all, those not done, and those flagged, and leads back to any', async () => {
    desk = deskInHand();
    act(() => {
      state().answer('parts-of-a-seed/A', storeResponse('choice', { chosen: ['root'] }));
      state().go(1);
      state().toggleFlag();
      state().lookBack();
    });
    renderAtDesk(desk, <LastLook />);
    const rows = () => screen.getAllByRole('listitem').length;
    const all = deskPaper.questions.length;
    expect(rows()).toBe(all);
    await userEvent.click(screen.getByRole('button', { name: `not done ${all - 1}` }));
    expect(rows()).toBe(all - 1);
    await userEvent.click(screen.getByRole('button', { name: 'flagged 1' }));
    expect(rows()).toBe(1);
    await userEvent.click(screen.getByRole('button', { name: new RegExp(second!.title) }));
    expect([state().view, state().index]).toEqual(['question', 1]);
  });

  it('says how much is open, and whether a guess costs', () => {
    desk = deskInHand();
    renderAtDesk(desk, <LastLook />);
    const all = deskPaper.questions.length;
    const text = `${all} questions are not done, worth ${deskPaper.marks / 100} of ${deskPaper.marks / 100} marks.`;
    const said = {
      free: 'You do not lose marks for a wrong choice',
      within: 'No question earns less than 0',
      costs: 'You can lose marks for a wrong choice',
    };
    expect(screen.getByText(new RegExp(text))).toHaveTextContent(said[guessingOf(deskPaper.questions)]);
  });
});

describe('handing in', () => {
  const open = async () => userEvent.click(screen.getByRole('button', { name: 'Hand in my paper' }));
  const inDialog = () => within(screen.getByRole('alertdialog'));

  it('names what is left open, and does nothing when one stays', async () => {
    desk = deskInHand();
    renderAtDesk(desk, <HandIn />);
    await open();
    expect(inDialog().getAllByRole('listitem').length).toBeGreaterThan(0);
    await userEvent.click(inDialog().getByRole('button', { name: 'Keep working' }));
    expect([screen.queryByRole('alertdialog'), desk.handIns]).toEqual([null, []]);
  });

  it('waits for the answers that a section demands, and says which', () => {
    const sections = deskPaper.sections.map((section) =>
      section.key === 'A' ? { ...section, navigation: 'free, all answered' as const } : section,
    );
    desk = deskInHand({ paper: { ...deskPaper, sections } });
    renderAtDesk(desk, <HandIn />);
    expect(screen.queryByRole('button', { name: 'Hand in my paper' })).toBeNull();
    expect(screen.getByText(/answer every question of its section: 1, 2, 3 and 4\./)).toBeVisible();
  });

  it('hands in once, however often one presses', async () => {
    desk = deskInHand();
    renderAtDesk(desk, <HandIn />);
    await open();
    const button = inDialog().getByRole('button', { name: 'Hand in my paper' });
    act(() => {
      fireEvent.click(button);
      fireEvent.click(button);
    });
    await waitFor(() => expect(state().receipt).toEqual(someReceipt));
    expect(desk.handIns).toEqual(['candidate']);
  });
});

describe('the question in view', () => {
  it('is answered, flagged and left by its buttons', async () => {
    desk = deskInHand();
    await answers.load(['choice']);
    renderAtDesk(desk, <QuestionView />);
    expect(screen.getByRole('heading', { level: 1 })).toHaveTextContent('Question 1');
    const [option] = screen.getAllByRole('radio');
    await userEvent.click(option!);
    expect(state().progress[0]!.state).toBe('done');
    const flag = screen.getByRole('button', { name: /^Flag/ });
    await userEvent.click(flag);
    expect(state().progress[0]!.flagged).toBe(true);
  });

  it('is sealed when the time of its section is over: nothing more goes into the journal', async () => {
    desk = deskInHand({ time: { ...deskTime, sectionEnds: { [first!.section]: 10 * MINUTE } } });
    await answers.load(['choice']);
    renderAtDesk(desk, <QuestionView />);
    expect(screen.queryByText(/The time for this section has ended/)).toBeNull();
    change({ now: 10 * MINUTE });
    expect(screen.getByText(/The time for this section has ended/)).toBeVisible();
    // Inert: no key and no pointer reaches it, while it can still be read.
    for (const option of screen.getAllByRole('radio', { hidden: true }))
      expect(option.closest('[inert]')).not.toBeNull();
    act(() => state().go(deskPaper.questions.findIndex((q) => q.section !== first!.section)));
    expect(screen.queryByText(/The time for this section has ended/)).toBeNull();
  });
});

const live: LiveView = {
  now: 0,
  stage: { at: 'running' },
  opensAt: 0,
  time: null,
  hand: null,
  place: null,
  triesLeft: 5,
  messages: [],
  hold: null,
  plays: {},
  pages: null,
  marked: null,
};
const help = (): NonNullable<DeskBackend['help']> => ({
  say: vi.fn((text: string) => Promise.resolve({ ...live, hand: { at: 0, text } })),
  takeBreak: vi.fn(() => Promise.resolve()),
  endBreak: vi.fn(() => Promise.resolve(live)),
  takeOver: vi.fn(() => Promise.reject(problem('notTakenOver'))),
  goOn: vi.fn(() => Promise.resolve()),
  versions: vi.fn(() => Promise.resolve([])),
  play: vi.fn(() => Promise.reject(problem('unreachable'))),
  returnPlay: vi.fn(() => Promise.resolve()),
  joinPhone: vi.fn(() => Promise.reject(problem('unreachable'))),
  endPhone: vi.fn(() => Promise.resolve()),
});

describe('help at the desk', () => {
  it('is not there in a rehearsal', () => {
    desk = deskInHand();
    const { container } = renderAtDesk(
      desk,
      <>
        <BreakTool />
        <HandTool />
      </>,
    );
    expect(container).toBeEmptyDOMElement();
  });

  it('offers a break only where one is left, and raises a hand with what it is about', async () => {
    const asked = help();
    desk = deskInHand({ help: asked });
    renderAtDesk(
      desk,
      <>
        <BreakTool />
        <HandTool />
      </>,
    );
    expect(screen.queryByRole('button', { name: 'Take a break' })).toBeNull();
    change({ time: { ...deskTime, breakLeftMs: 5 * MINUTE } });
    await userEvent.click(screen.getByRole('button', { name: 'Take a break' }));
    expect(asked.takeBreak).toHaveBeenCalledOnce();
    await userEvent.click(screen.getByRole('button', { name: 'Raise a hand' }));
    const send = await screen.findByRole('button', { name: 'Send and raise a hand' });
    expect(send).toBeDisabled();
    await userEvent.type(
      screen.getByRole('textbox', { name: 'What do you need help with?' }),
      '  The sound stopped ',
    );
    await userEvent.click(send);
    expect(asked.say).toHaveBeenCalledWith('The sound stopped', true);
    expect(screen.getByRole('button', { name: 'Your hand is raised' })).toBeVisible();
    expect(screen.getByRole('textbox', { name: 'What do you need help with?' })).toHaveValue('');
  });

  it('shows and speaks what the invigilator said, once, until it is read', async () => {
    desk = deskInHand();
    renderAtDesk(
      desk,
      <>
        <Announcer />
        <SaidNotices />
        <Notices />
      </>,
    );
    const heard = () => document.querySelector('[data-announcer]')!;
    change({ told: 'Ten minutes left' });
    expect(document.querySelector('[data-told]')).toHaveTextContent('The invigilator says: Ten minutes left');
    expect(heard()).toHaveTextContent(/The invigilator says: Ten minutes left$/);
    await userEvent.click(screen.getByRole('button', { name: 'I have read this' }));
    expect(document.querySelector('[data-told]')).toBeNull();
    // A warning says what is left when it is seen, counts down, and what happens at the end.
    change({ warnedAt: 0, leftMs: 32_000 });
    const warning = () => document.querySelector('[data-warning]');
    expect(warning()).toHaveTextContent('0:32 left. At 0:00 the rehearsal ends by itself.');
    expect(heard()).toHaveTextContent(/32 seconds are left\. At 0:00 the rehearsal ends by itself\.$/);
    change({ leftMs: 31_000 });
    expect(warning()).toHaveTextContent('0:31 left.');
    expect(heard()).not.toHaveTextContent('31');
  });
});

describe('the desk put away', () => {
  it.each([
    ['pause', 'Your test is paused'],
    ['break', 'You are taking a break'],
    ['queued', 'Your paper is handed in on this device'],
    ['elsewhere', 'Your test is open in another window or device'],
  ] as const)('tells why: %s', (why, title) => {
    desk = deskInHand({ help: help(), queuedAt: why === 'queued' ? 5 : null });
    renderAtDesk(desk, <Covered why={why} />);
    expect(screen.getByRole('heading', { level: 1 })).toHaveTextContent(title);
    // Nothing of a question is left to be read.
    expect(document.body).not.toHaveTextContent(documentAsText(first!.parts[0]!.prompt, say).slice(0, 20));
  });

  it('ends a break early, and says so when a take-over fails', async () => {
    const asked = help();
    desk = deskInHand({ help: asked });
    const { unmount } = renderAtDesk(desk, <Covered why="break" />);
    await userEvent.click(screen.getByRole('button', { name: 'Continue the test' }));
    expect(asked.endBreak).toHaveBeenCalledOnce();
    unmount();
    renderAtDesk(desk, <Covered why="elsewhere" />);
    await userEvent.click(screen.getByRole('button', { name: 'Continue here' }));
    expect(screen.getByText(/could not be moved to this window/)).toBeVisible();
  });
});

describe('a section with a limit of its own', () => {
  const sealed = {
    ...deskPaper,
    sections: deskPaper.sections.map((s) => (s.key === first!.section ? { ...s, minutes: 10 } : s)),
  };
  const { open, limited } = splitForSealing(sealed);

  it('is a door before it is entered: what it costs, and nothing of its questions', async () => {
    const enter = vi.fn(() => Promise.resolve(limited[0]!));
    desk = deskInHand({ paper: open, help: help(), enter, time: { ...deskTime, extraPercent: 25 } });
    await answers.load(['choice']);
    renderAtDesk(desk, <QuestionView />);
    // The next question waits behind the same door, laid out beforehand.
    const [title] = await screen.findAllByText(/Section A has a time limit of its own/);
    expect(title).toBeVisible();
    // Ten minutes and a quarter more.
    expect(screen.getAllByText(/You have 12:30 min for its 4 questions/)[0]).toBeVisible();
    expect(document.body).not.toHaveTextContent(first!.title);
    const [inView] = screen.getAllByRole('button', { name: 'Enter section A – its time begins' });
    await userEvent.click(inView!);
    expect(enter).toHaveBeenCalledWith('A');
    expect(await screen.findAllByRole('radio')).not.toHaveLength(0);
  });

  it('says why it cannot be entered', async () => {
    const enter = vi.fn(() => Promise.reject(problem('unreachable')));
    desk = deskInHand({ paper: open, help: help(), enter });
    renderAtDesk(desk, <QuestionView />);
    const [door] = await screen.findAllByRole('button', { name: /^Enter section A/ });
    await userEvent.click(door!);
    expect(await screen.findByText(/The server cannot be reached/)).toBeVisible();
  });
});

describe('earlier versions', () => {
  const place = deskPaper.questions.findIndex((q) => q.parts.some((p) => p.kind === 'writing'));
  const part = deskPaper.questions[place]!.parts[0]!;
  const essay = (text: string) => ({
    text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] },
  });
  const versions: AnswerVersion[] = [
    { hold: 2, number: 4, at: 2000, elsewhere: false, value: storeResponse('writing', essay('as it is')) },
    {
      hold: 1,
      number: 9,
      at: 1000,
      elsewhere: true,
      value: storeResponse('writing', essay('from the tablet')),
    },
  ];

  it('are looked through and brought back; where another device has one, that is said first', async () => {
    await Promise.all([answers.load(['writing']), readings.load(['writing'])]);
    const asked = { ...help(), versions: vi.fn(() => Promise.resolve(versions)) };
    desk = deskInHand({ help: asked, otherVersions: [part.target] });
    renderAtDesk(desk, <PartView part={part} several={false} />);
    await userEvent.click(screen.getByRole('button', { name: 'Compare the versions' }));
    const dialog = within(await screen.findByRole('dialog'));
    expect(asked.versions).toHaveBeenCalledWith(part.target);
    expect(await dialog.findByText('from the tablet')).toBeVisible();
    await userEvent.click(dialog.getByRole('button', { name: 'Restore this version' }));
    expect(desk.noted).toContain(`answer ${part.target}`);
    expect(state().desk.answers[part.target]).toEqual(storeResponse('writing', essay('from the tablet')));
    expect(screen.queryByText(/Another device or window also has a version/)).toBeNull();
  });

  it('are not there in a rehearsal, nor for what is done with one press', () => {
    desk = deskInHand({ help: help() });
    renderAtDesk(desk, <PartView part={first!.parts[0]!} several={false} />);
    expect(screen.queryByRole('button', { name: 'Earlier versions' })).toBeNull();
  });
});
