import { dateAndTime, LOCALE } from '../messages/dates';
import { letter } from '../messages/letters.en';
import { message, type Message, type Say } from '../messages/message';
import { words } from '../messages/words';
import { allowedMs, MINUTE_MS } from '../timing/deadline';
import { showLength } from '../timing/pace';
import '../arrival/attemptWords';
import '../rounds/recordedWords';

words('letter', letter);

interface Facts {
  readonly organisation: string;
  readonly name: string;
  readonly title: string;
  /** What the people who run the round say about help, in their words. */
  readonly help: string;
  /** The reader's zone where it is known, else the round's. */
  readonly timeZone: string;
}

export interface InvitationFacts extends Facts {
  readonly kind: 'invitation';
  readonly reference: string;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly roundZone: string;
  readonly minutes: number;
  readonly camera: boolean;
  readonly extraPercent: number;
  readonly breakMinutes: number;
  /** What is recorded; letters of before have none. */
  readonly recorded?: readonly Message[];
  /** How many attempts there are and which counts; letters of before have none. */
  readonly attempts?: readonly Message[];
}

export interface ReceiptFacts extends Facts {
  readonly kind: 'receipt';
  readonly closedAt: number;
  readonly code: string;
  readonly resultBy: number;
}

/** What a notice tells: each leads to the page behind the personal link, which says the rest. */
export type NoticeTopic = 'result' | 'result changed' | 'check answered' | 'question' | 'verdict';

export interface NoticeFacts extends Facts {
  readonly kind: 'notice';
  readonly topic: NoticeTopic;
  /** Written by the person who decided; empty where there is nothing to add. */
  readonly says: string;
}

/** An additional link, for somebody who asked for it. */
export interface LinkFacts extends Facts {
  readonly kind: 'link';
}

/** A code that shows a result once. */
export interface CodeFacts extends Facts {
  readonly kind: 'code';
  /** How long it can be used, in minutes. */
  readonly minutes: number;
}

/** All that a letter says, but for its secret, which is stored nowhere: it is made when the letter is sent. */
export type LetterFacts = InvitationFacts | ReceiptFacts | NoticeFacts | LinkFacts | CodeFacts;

/** The secret that a letter brings: a personal link, a code, or none. */
export const secretIn = ({ kind }: LetterFacts): 'link' | 'code' | null =>
  kind === 'invitation' || kind === 'link' ? 'link' : kind === 'code' ? 'code' : null;

/** `resultChanged` of `result changed`. */
const topicKey = (topic: NoticeTopic) => topic.replace(/ (\w)/, (_, letter: string) => letter.toUpperCase());

export function subjectOf(facts: LetterFacts): Message {
  const { title } = facts;
  if (facts.kind === 'notice') return message(`letter.subject-${topicKey(facts.topic)}`, { title });
  const subjects = {
    invitation: 'letter.invitationSubject',
    receipt: 'letter.receiptSubject',
    link: 'letter.linkSubject',
    code: 'letter.codeSubject',
  } as const;
  return message(subjects[facts.kind], { title });
}

/** “Tuesday 24 November 2026 at 09:00 (Europe/Oslo)”. */
const showTime = (at: number, timeZone: string): string =>
  `${dateAndTime(at, { locale: LOCALE, timeZone })} (${timeZone})`;

type Paragraph = readonly (Message | string | null)[];

function invitation(facts: InvitationFacts, link: string | null): Paragraph[] {
  const { organisation, title, opensAt, closesAt, timeZone, roundZone, extraPercent, breakMinutes } = facts;
  const length = showLength(allowedMs(facts.minutes * MINUTE_MS, extraPercent));
  const inZone = (zone: string) => ({ from: showTime(opensAt, zone), to: showTime(closesAt, zone) });
  return [
    [message('letter.invited', { organisation, title })],
    [
      message('letter.from', { when: showTime(opensAt, timeZone) }),
      message('letter.to', { when: showTime(closesAt, timeZone) }),
      timeZone === roundZone ? null : message('letter.here', { zone: roundZone, ...inZone(roundZone) }),
      extraPercent > 0
        ? message('letter.timeExtra', { length, percent: extraPercent })
        : message('letter.time', { length }),
      breakMinutes > 0 ? message('letter.breaks', { minutes: breakMinutes }) : null,
    ],
    [message('letter.choose')],
    ...(facts.attempts ? [facts.attempts] : []),
    [message('letter.reference', { reference: facts.reference })],
    [message('letter.linkTitle'), link ?? message('letter.linkSent')],
    [message(facts.camera ? 'letter.prepareCamera' : 'letter.prepare')],
    ...(facts.recorded ? [[message('letter.recorded'), ...facts.recorded]] : []),
  ];
}

const receipt = ({ title, closedAt, timeZone, code, resultBy }: ReceiptFacts): Paragraph[] => [
  [message('letter.handedIn', { title, when: showTime(closedAt, timeZone) })],
  [message('letter.receipt', { code })],
  [message('letter.receiptUse')],
  [message('letter.resultBy', { when: showTime(resultBy, timeZone) })],
];

const notice = ({ topic, title, says }: NoticeFacts): Paragraph[] => [
  [message(`letter.notice-${topicKey(topic)}`, { title })],
  ...(says === '' ? [] : [[says]]),
  [message('letter.noticeLink')],
];

const additionalLink = ({ title }: LinkFacts, link: string | null): Paragraph[] => [
  [message('letter.linkAsked', { title })],
  [message('letter.linkTitle'), link ?? message('letter.linkSent')],
  [message('letter.linkOthers')],
];

const resultCode = ({ title, minutes }: CodeFacts, code: string | null): Paragraph[] => [
  [message('letter.codeAsked', { title })],
  [code ?? message('letter.codeSent')],
  [message('letter.codeUse', { count: minutes })],
];

function middleOf(facts: LetterFacts, secret: string | null): Paragraph[] {
  switch (facts.kind) {
    case 'invitation':
      return invitation(facts, secret);
    case 'receipt':
      return receipt(facts);
    case 'notice':
      return notice(facts);
    case 'link':
      return additionalLink(facts, secret);
    case 'code':
      return resultCode(facts, secret);
  }
}

/** A letter in words, with its secret where that is known. */
export function writeLetter(facts: LetterFacts, secret: string | null, say: Say): string {
  const middle = middleOf(facts, secret);
  const paragraphs: Paragraph[] = [
    [message('letter.dear', { name: facts.name })],
    ...middle,
    [facts.help],
    [facts.organisation],
  ];
  const words = (line: Message | string) => (typeof line === 'string' ? line : say(line));
  const lines = (paragraph: Paragraph) => paragraph.filter((line) => line !== null).map(words);
  return `${paragraphs.map((paragraph) => lines(paragraph).join('\n')).join('\n\n')}\n`;
}
