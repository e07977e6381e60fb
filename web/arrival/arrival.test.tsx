import { emptyDocument, plainDocument } from '../../core/documents/document';
import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { attemptsTold } from '../../core/arrival/attemptsTold';
import type { ArrivalView } from '../../core/arrival/api';
import type { CheckName } from '../../core/arrival/checks';
import type { LiveView } from '../../core/live/api';
import { fakeServer, Refused } from '../testing/fakeServer';
import { ArrivalContext } from './ArrivalContext';
import { HandedIn } from './HandedIn';
import { Outside } from './Outside';
import { CheckList, useFindings } from './steps/Checks';
import { Details } from './steps/Details';
import { Rules } from './steps/Rules';
import { Waiting } from './steps/Waiting';

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;
const NOW = Date.UTC(2026, 10, 24, 8, 0);

const round: ArrivalView['round'] = {
  title: 'November',
  paperTitle: 'Seed technician',
  opensAt: NOW,
  closesAt: NOW + DAY,
  timeZone: 'Europe/Oslo',
  attemptsAllowed: 1,
  attempts: [{ code: 'attempts.one' }],
  startRule: 'opening time',
  doorsAt: NOW - 30 * MINUTE,
  identityPicture: false,
  correctionsFirst: false,
  recorded: [{ code: 'recorded.picture', values: { days: 60 } }],
  resultAtOnce: false,
  resultBy: NOW + 9 * DAY,
  help: 'Ask the archive.',
};
const view = (change: Partial<ArrivalView> = {}): ArrivalView => ({
  now: NOW,
  stage: { at: 'arriving', step: 'details' },
  organisation: 'Hollin Reach',
  round,
  attempt: 1,
  attempts: [],
  otherTests: 0,
  candidate: { name: 'Corin Hale', email: 'corin@example.org', reference: 'HR-12' },
  time: { limitMs: 60 * MINUTE, extraPercent: 0, breakMinutes: 0 },
  checks: { demanded: [], waived: [], results: [] },
  correction: null,
  pictureTaken: false,
  questionnaire: false,
  practice: false,
  receipt: null,
  marking: null,
  rules: {
    version: '2026-11',
    text: plainDocument('Be honest.'),
    statements: [
      { key: 'own', text: 'This is my own work.' },
      { key: 'quiet', text: 'I tell nobody about it.' },
    ],
  },
  cover: {
    text: emptyDocument,
    sections: [],
    marks: 100,
    bands: [],
    bandsAfterwards: false,
    questions: 1,
    guessing: 'free',
    warningMinutes: [],
    peopleMark: false,
    kinds: [],
    textNodes: [],
  },
  ...change,
});
const live = (change: Partial<LiveView> = {}): LiveView => ({
  now: NOW,
  stage: { at: 'arriving', step: 'waiting' },
  opensAt: NOW,
  time: null,
  hand: null,
  place: null,
  pages: null,
  marked: null,
  triesLeft: 5,
  messages: [],
  hold: null,
  plays: {},
  ...change,
});

const update = vi.fn();
const show = (part: ReactNode, of: Partial<ArrivalView> = {}, now: LiveView | null = null) =>
  render(
    <MemoryRouter>
      <ArrivalContext value={{ view: view(of), live: now, link: 'the-link', update }}>{part}</ArrivalContext>
    </MemoryRouter>,
  );
beforeEach(() => update.mockReset());
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('the invitation', () => {
  it('counts down by the server’s time, whatever the device says, and offers to practise', () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance', 'Date'] });
    // A device whose clock is years wrong.
    vi.setSystemTime(0);
    show(<Outside over={false} />, {
      round: { ...round, opensAt: NOW + DAY + 3 * 60 * MINUTE + 12 * MINUTE },
      stage: { at: 'too early' },
    });
    expect(screen.getByRole('timer')).toHaveTextContent('1 day 3 hours 12 minutes until it opens');
    act(() => void vi.advanceTimersByTime(13 * MINUTE));
    expect(screen.getByRole('timer')).toHaveTextContent('1 day 2 hours 59 minutes until it opens');
    expect(screen.getByRole('link', { name: /Practise|rehears/i })).toHaveAttribute(
      'href',
      '/i/the-link/rehearsal',
    );
    expect(screen.getByRole('link', { name: /calendar/i })).toHaveAttribute(
      'href',
      '/api/arrival/test-window.ics',
    );
  });

  it('tells the candidate’s own time and why, breaks, and which attempt counts', () => {
    show(<Outside over={false} />, {
      time: { limitMs: 60 * MINUTE, extraPercent: 25, breakMinutes: 10 },
      round: {
        ...round,
        attemptsAllowed: 3,
        attempts: attemptsTold({ attemptsAllowed: 3, counts: 'mean', pauseMinutes: 90 }, 1),
      },
      attempt: 2,
    });
    const facts = screen.getByText('How long').parentElement!;
    expect(facts).toHaveTextContent('1 h 15 min');
    expect(facts).toHaveTextContent('25 %');
    expect(facts).toHaveTextContent('10 min');
    expect(screen.getByText(/used 1 of 3 attempts; 2 are left\. Your result is the mean/)).toBeVisible();
    expect(screen.getByText(/have to wait 1 h 30 min/)).toBeVisible();
    expect(screen.getByText(/deleted after 60 days/)).toBeVisible();
  });

  it('says after the window that it is over, and whom to ask, without a count-down', () => {
    show(<Outside over />, { stage: { at: 'over' } });
    expect(screen.queryByRole('timer')).toBeNull();
    expect(screen.getByText('Ask the archive.')).toBeVisible();
    expect(screen.queryByText('How long')).toBeNull();
  });
});

describe('the details', () => {
  it('are confirmed as they are', async () => {
    const next = view({ stage: { at: 'arriving', step: 'rules' } });
    const calls = fakeServer({ 'POST /arrival/details': () => next });
    show(<Details />);
    for (const fact of ['Corin Hale', 'corin@example.org', 'HR-12'])
      expect(screen.getByText(fact)).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'These are my details' }));
    expect(calls[0]!.body).toEqual({ correction: null });
    expect(update).toHaveBeenCalledWith(next);
  });

  it('are asked to be corrected in the candidate’s words', async () => {
    const calls = fakeServer({ 'POST /arrival/details': () => view() });
    show(<Details />);
    await userEvent.click(screen.getByRole('button', { name: 'Something is wrong' }));
    const [send] = screen.getAllByRole('button');
    expect(send).toBeDisabled();
    await userEvent.type(screen.getByRole('textbox'), ' Hale with one l ');
    await userEvent.click(send!);
    expect(calls[0]!.body).toEqual({ correction: 'Hale with one l' });
  });
});

describe('the rules', () => {
  it('are accepted item by item; a change of them in between is told', async () => {
    const calls = fakeServer({
      'POST /arrival/rules': () =>
        new Refused(409, 'rules-changed', 'The rules have changed. Read them again.'),
    });
    show(<Rules />);
    const accept = screen.getByRole('button');
    const [own, quiet] = screen.getAllByRole('checkbox');
    await userEvent.click(own!);
    await userEvent.click(quiet!);
    await userEvent.click(own!);
    expect(accept).toBeDisabled();
    await userEvent.click(own!);
    await userEvent.click(accept);
    expect(calls[0]!.body).toEqual({ version: '2026-11', accepted: ['quiet', 'own'] });
    expect(screen.getByText('The rules have changed. Read them again.')).toBeVisible();
    expect(update).not.toHaveBeenCalled();
  });
});

describe('the waiting room', () => {
  it('counts down to the opening', () => {
    show(<Waiting />, { round: { ...round, opensAt: NOW + 90_000 } });
    expect(screen.getByRole('timer')).toHaveTextContent('1:30');
    expect(screen.queryByRole('textbox')).toBeNull();
  });

  it('takes the door code from the opening on, says when it is wrong, and when no more can be tried', async () => {
    const atDoor = { round: { ...round, startRule: 'door code' as const } };
    const calls = fakeServer({
      'POST /arrival/door': () => new Refused(409, 'wrong-code', 'This is not the code. 4 tries are left.'),
    });
    const { unmount } = show(<Waiting />, atDoor, live());
    await userEvent.type(screen.getByRole('textbox'), 'wren 11{Enter}');
    expect(calls[0]!.body).toEqual({ code: 'wren 11' });
    expect(screen.getByText('This is not the code. 4 tries are left.')).toBeVisible();
    unmount();
    show(<Waiting />, atDoor, live({ triesLeft: 0 }));
    expect(screen.queryByRole('textbox')).toBeNull();
  });

  it('tells the place in line where the invigilator admits by hand, and what was said', () => {
    const messages = [{ id: 1, at: NOW, from: 'invigilator' as const, text: 'We begin in a minute' }];
    const byHand = { round: { ...round, startRule: 'by hand' as const } };
    show(<Waiting />, byHand, live({ place: 3, messages }));
    expect(screen.getByText(/3/, { selector: 'p' })).toBeVisible();
    expect(screen.getByText('We begin in a minute')).toBeVisible();
  });
});

describe('the checks', () => {
  function Checked({ demanded }: { demanded: readonly CheckName[] }) {
    const measured = useFindings(demanded, NONE);
    return <CheckList {...measured} demanded={demanded} />;
  }
  const NONE: never[] = [];
  const CLOCK: readonly CheckName[] = ['clock'];
  const FULL: readonly CheckName[] = ['full screen'];
  const CLOCK_THEN_FULL: readonly CheckName[] = ['clock', 'full screen'];
  const BROWSER: readonly CheckName[] = ['browser'];

  it('tell how far the clock is off, and that it does not matter', async () => {
    fakeServer({ 'GET /config': () => ({ now: Date.now() + 3 * 60 * MINUTE }) });
    show(<Checked demanded={CLOCK} />);
    expect(await screen.findByText(/wrong by 180 min/)).toBeVisible();
    expect(screen.getByText('good')).toBeVisible();
  });

  it('give a remedy with what could be better, and run again on request', async () => {
    Object.defineProperty(document, 'fullscreenEnabled', { value: false, configurable: true });
    show(<Checked demanded={FULL} />);
    const again = await screen.findByRole('button', { name: /again/i });
    expect(screen.getByText('could be better')).toBeVisible();
    Object.defineProperty(document, 'fullscreenEnabled', { value: true, configurable: true });
    await userEvent.click(again);
    expect(await screen.findByText('good')).toBeVisible();
    expect(screen.queryByRole('button', { name: /again/i })).toBeNull();
  });

  it('that break off say so, and do not keep the others from running', async () => {
    fakeServer({});
    show(<Checked demanded={CLOCK_THEN_FULL} />);
    expect(await screen.findByText('This check stopped before it was finished')).toBeVisible();
    expect(await screen.findByText('good')).toBeVisible();
    fakeServer({ 'GET /config': () => ({ now: Date.now() }) });
    await userEvent.click(screen.getByRole('button', { name: /again/i }));
    expect(await screen.findByText(/clock of this device is right/)).toBeVisible();
  });

  it('name what this browser lacks', async () => {
    vi.stubGlobal('indexedDB', undefined);
    Object.defineProperty(window, 'isSecureContext', { value: true, configurable: true });
    show(<Checked demanded={BROWSER} />);
    expect(await screen.findByText(/storage/)).toBeVisible();
    expect(screen.getByText('not working')).toBeVisible();
  });
});

describe('after the hand-in', () => {
  const receipt = {
    code: 'ABCD-EFGH-JKLM',
    handedInAt: NOW,
    claimedAt: null,
    earlier: [],
    usedMs: 41 * MINUTE,
    closedBy: 'candidate' as const,
    answered: 12,
    parts: 13,
  };

  it('shows the receipt, what was answered, and what people are marking until when', () => {
    const reading = [{ title: 'Incident note', assessors: 2 }];
    show(<HandedIn />, { receipt, marking: { scored: 9, questions: 10, reading, scoring: false } });
    expect(screen.getByText('ABCD-EFGH-JKLM')).toBeVisible();
    expect(screen.getByText('41 min')).toBeVisible();
    expect(screen.getByText('12 of 13 parts')).toBeVisible();
    expect(screen.getByText('9 of 10 questions are marked.')).toBeVisible();
    expect(screen.getByText('2 assessors are marking “Incident note”.')).toBeVisible();
    expect(screen.getByText(/expected by 3 December 2026/)).toBeVisible();
    expect(screen.queryByText(/reached the server/)).toBeNull();
  });

  it.each([
    ['time', /handed in automatically/],
    ['server', /had reached the server were handed in/],
  ] as const)('says that the %s closed it, and when it came if it came later', (closedBy, words) => {
    show(<HandedIn />, { receipt: { ...receipt, closedBy, claimedAt: NOW - 9 * MINUTE } });
    expect(screen.getByText(words)).toBeVisible();
    expect(screen.getByText(/You handed in on your device at .*, without a connection/)).toBeVisible();
  });

  it.each([
    [{ matches: true, whole: true }, /exactly those that you handed in/],
    [{ matches: true, whole: false }, /Contact Hollin Reach now/],
    [{ matches: false, whole: false }, /not the code of your paper/],
  ])('a code that is checked is answered in words: %j', async (checked, words) => {
    const calls = fakeServer({ 'POST /arrival/receipt-check': () => checked });
    show(<HandedIn />, { receipt });
    expect(screen.getByRole('button', { name: 'Check a code' })).toBeDisabled();
    await userEvent.type(screen.getByLabelText('Receipt code'), 'abcd-efgh-jklm');
    await userEvent.click(screen.getByRole('button', { name: 'Check a code' }));
    expect(await screen.findByText(words)).toBeVisible();
    expect(calls.find(({ call }) => call.startsWith('POST'))!.body).toEqual({ code: 'abcd-efgh-jklm' });
  });
});
