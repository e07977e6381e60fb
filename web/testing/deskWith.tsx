import { render, type RenderResult } from '@testing-library/react';
import type { ReactNode } from 'react';
import { technicianPaper } from '../../demo/technicianPaper';
import { emptyDesk } from '../../core/journal/desk';
import { drawForm } from '../../core/forms/drawForm';
import type { Receipt, TimeView } from '../../core/sittings/api';
import type { DeskBackend, DeskEvents, HandInOutcome } from '../desk/backend';
import { AtDesk } from '../desk/DeskContext';
import { createDesk, type DeskSession } from '../desk/deskStore';
import { noFiles } from '../media/fileSource';
import type { OpenedDesk } from '../desk/openDesk';

const HOUR = 3_600_000;

export const deskPaper = drawForm(technicianPaper(), {
  seed: 'desk',
  locale: 'en',
  transcripts: false,
  aids: [],
}).paper;

export const deskTime: TimeView = {
  startedAt: 0,
  leftMs: HOUR,
  deadlineAt: HOUR,
  stopped: null,
  breakLeftMs: 0,
  extraPercent: 0,
  sectionEnds: {},
};

export const someReceipt: Receipt = {
  code: 'AAAA',
  handedInAt: 1,
  claimedAt: null,
  earlier: [],
  usedMs: 1,
  closedBy: 'candidate',
  answered: 1,
  parts: 2,
};

/** A desk whose time, server and invigilator are in the test's hands. */
export interface DeskInHand extends DeskSession {
  readonly events: DeskEvents;
  /** What went into the journal: `about target`. */
  readonly noted: string[];
  /** Who handed in, each time. */
  readonly handIns: ('candidate' | 'time')[];
  /** What the coming hand-ins come to; a receipt where nothing is said. */
  readonly outcomes: HandInOutcome[];
  now: number;
}

const noLimits: DeskBackend['enter'] = () => Promise.reject(new Error('no section has a limit'));

export function deskInHand(more: Partial<OpenedDesk & Pick<DeskBackend, 'help' | 'enter'>> = {}): DeskInHand {
  const { help = null, enter = noLimits, ...opened } = more;
  let events: DeskEvents | null = null;
  const inHand = {
    noted: [] as string[],
    handIns: [] as ('candidate' | 'time')[],
    outcomes: [] as HandInOutcome[],
  };
  const clock = { at: 0 };
  const backend: DeskBackend = {
    directions: null,
    begin(told) {
      events = told;
      return () => undefined;
    },
    note: ({ about, target }) => void inHand.noted.push(`${about} ${target}`),
    settle: () => undefined,
    handIn(by) {
      inHand.handIns.push(by);
      return Promise.resolve(inHand.outcomes.shift() ?? { done: someReceipt });
    },
    enter,
    help,
  };
  const session = createDesk({
    paper: deskPaper,
    desk: emptyDesk,
    time: deskTime,
    timed: true,
    clock: { now: () => clock.at },
    backend,
    queuedAt: null,
    otherVersions: [],
    files: noFiles,
    pages: null,
    plays: null,
    ...opened,
  });
  return {
    ...session,
    ...inHand,
    events: events!,
    get now() {
      return clock.at;
    },
    set now(at: number) {
      clock.at = at;
    },
  };
}

/** Draws a part of the desk within it. */
export const renderAtDesk = ({ store }: Pick<DeskSession, 'store'>, part: ReactNode): RenderResult =>
  render(<AtDesk store={store}>{part}</AtDesk>);
