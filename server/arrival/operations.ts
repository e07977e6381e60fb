import { roundMarked } from '../marking/roundMarked';
import { guessingOf } from '../../core/papers/guessing';
import { recordedOf } from '../../core/rounds/recorded';
import { runsPrograms } from '../../core/scoring/script';
import { arrivalStateOf, doorsAt, type ArrivalState } from '../candidates/state';
import { typesIn } from '../../core/documents/everyNode';
import type { ArrivalView, AttemptHandedIn } from '../../core/arrival/api';
import { attemptsTold } from '../../core/arrival/attemptsTold';
import { countedAttempts, isComplete } from '../../core/results/attempts';
import { totalOf } from '../../core/results/totals';
import { attemptsOfAll } from '../results/attempts';
import { otherTests } from '../ownTests/ownTests';
import type { CheckResult } from '../../core/arrival/checks';
import { aidsFor } from '../../core/kit/aids';
import { plainForm, wholeForm } from '../../core/forms/drawForm';
import { componentsOf, byPeople } from '../../core/scoring/components';
import { documentsIn, outlineSections } from '../../core/papers/candidatePaper';
import { allParts, type FullPaper } from '../../core/papers/paper';
import { sumMarks } from '../../core/marks';
import { MINUTE_MS, warningsOf } from '../../core/timing/deadline';
import { ApiError, badRequest, conflict } from '../http/errors';
import { markingProgress } from '../marking/progress';
import { areSixDigits, sameDigits } from '../sixDigits';
import { doorCodeOf } from './doorCode';
import { record } from '../audit/record';
import { receiptOf } from '../sittings/receipts';
import {
  findArrival,
  findInvited,
  isScored,
  noteArrival,
  paperOf,
  sittingsOf,
  type Arrival,
} from '../candidates/queries';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasFiles } from '../files/files';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasPictures } from '../pictures/pictures';
import type { HasTime } from '../sittings/timeKeeper';

/** What is needed here of the server. */
interface Needs
  extends HasConfig, HasClock, HasDb, HasCommits, HasTime, HasHub, HasFiles, HasPictures, HasSecret {}

const DAY_MS = 24 * 60 * MINUTE_MS;

/** Like `arrivalStateOf`, but only while the arrival goes on: steps cannot be taken before, during or after the sitting. */
function arriving(services: HasClock & HasDb, invitationId: number): ArrivalState {
  const here = arrivalStateOf(services, invitationId);
  if (here.stage.at !== 'arriving') throw conflict('not-arriving');
  return here;
}

type PlainCover = Omit<ArrivalView['cover'], 'bands' | 'bandsAfterwards'>;
const knownCovers = new WeakMap<FullPaper, PlainCover>();

/** What is told of a paper before it begins: the same for everybody, so worked out once. */
function coverOf(paper: FullPaper): PlainCover {
  const known = knownCovers.get(paper);
  if (known) return known;
  const parts = allParts(paper);
  const copy = plainForm(paper).paper;
  const components = componentsOf(paper);
  const cover = {
    text: paper.cover,
    sections: outlineSections(copy),
    questions: copy.questions.length,
    marks: sumMarks(copy.questions.map((question) => question.marks)),
    guessing: guessingOf(copy.questions),
    warningMinutes: warningsOf(paper.warningMinutes),
    kinds: [...new Set(parts.map((p) => p.part.kind))],
    textNodes: [...typesIn([paper.cover, paper.rules.text, ...documentsIn(wholeForm(paper).paper)])],
    peopleMark: parts.some((p) => byPeople(components.get(p.target)!).length > 0),
  };
  knownCovers.set(paper, cover);
  return cover;
}

export function arrivalView(services: Needs, invitationId: number): ArrivalView {
  const { db, clock, config } = services;
  const here = arrivalStateOf(services, invitationId);
  const { invited, attempt, arrival, stage } = here;
  const { round, person, invitation } = invited;
  const paper = paperOf(db, invited);
  const plain = coverOf(paper);
  const { aids } = invited.invitation.arrangements;
  const sections = plain.sections.map((one) => ({ ...one, aids: aidsFor(one.aids, aids) }));
  const { bandsAfterwards } = round.settings;
  const bands = bandsAfterwards ? [] : (roundMarked(db, round).bands ?? []);
  const cover = { ...plain, sections, bandsAfterwards, bands: bands.toSorted((a, b) => b.from - a.from) };
  const handedIn = sittingsOf(db, invitationId).filter((s) => s.closedAt !== null);
  const [closed] = handedIn;
  const { attemptsAllowed, resultBy, help, checks, startRule } = round.settings;
  const { identityPicture, correctionsFirst } = round.settings;
  const { title, opensAt, closesAt, timeZone } = round;
  return {
    now: clock.now(),
    stage,
    organisation: config.organisation,
    round: {
      title,
      paperTitle: paper.title,
      opensAt,
      closesAt,
      timeZone,
      attemptsAllowed,
      attempts: attemptsTold(round.settings, Math.min(handedIn.length, attemptsAllowed)),
      startRule,
      doorsAt: doorsAt(round),
      identityPicture,
      correctionsFirst,
      recorded: recordedOf(round.settings, runsPrograms(paper)),
      resultBy,
      resultAtOnce: round.settings.release === 'at once' && !plain.peopleMark,
      help,
    },
    candidate: { name: person.name, email: person.email, reference: person.reference },
    attempt,
    time: {
      limitMs: paper.minutes * MINUTE_MS,
      extraPercent: invitation.extraPercent,
      breakMinutes: invitation.arrangements.breakMinutes,
    },
    checks: {
      demanded: checks,
      waived: invitation.arrangements.waivedChecks,
      results: arrival?.checks ?? [],
    },
    correction: arrival?.correctionSettledAt == null ? (arrival?.correction ?? null) : null,
    pictureTaken: services.files.has(invitationId, 'picture', attempt),
    questionnaire:
      round.settings.questionnaire && invitation.questionnaireAt === null && closed !== undefined,
    practice: round.practiceAt !== null,
    rules: paper.rules,
    cover,
    receipt: closed ? receiptOf(services, closed) : null,
    otherTests: otherTests(services, invited),
    attempts: attemptsHandedIn(services, here, handedIn),
    marking:
      (stage.at === 'being marked' || stage.at === 'between') && closed
        ? markingProgress(db, closed, paper)
        : null,
  };
}

/** The attempts that were handed in, with their marks where the candidate may see them. */
function attemptsHandedIn(
  services: Needs,
  { invited, released }: ArrivalState,
  handedIn: ReturnType<typeof sittingsOf>,
): AttemptHandedIn[] {
  const { id } = invited.invitation;
  const marked = released && handedIn.length > 0 ? roundMarked(services.db, invited.round).marked : null;
  const made = marked ? (attemptsOfAll(services.db, marked, [id]).get(id) ?? []) : [];
  const counted = countedAttempts(made, invited.round.settings.counts);
  return handedIn.toReversed().flatMap((sitting) => {
    const receipt = receiptOf(services, sitting);
    if (!receipt) return [];
    const own = isScored(sitting) ? made.find((one) => one.sitting.id === sitting.id) : undefined;
    const marks = own &&
      marked && {
        hundredths: own.total,
        of: totalOf(marked, own.marks).of,
        complete: isComplete([own], marked),
      };
    return {
      attempt: sitting.attempt,
      receipt,
      marks: marks ?? null,
      counts: counted.some((one) => one.sitting.id === sitting.id),
    };
  });
}

/** The candidate asks for the next attempt: a step of its own, since it counts from its start on. */
export async function beginAttempt(services: Needs, invitationId: number, attempt: number): Promise<void> {
  const here = arrivalStateOf(services, invitationId);
  // Pressed twice, or in two windows.
  if (here.stage.at === 'arriving' && here.attempt === attempt) return;
  if (here.stage.at !== 'between' || here.stage.next !== attempt) throw conflict('no-next-attempt');
  if (services.clock.now() < here.stage.from) throw conflict('attempt-pause');
  await note(services, invitationId, attempt, { begunAt: services.clock.now() });
  tellRound(services, invitationId);
}

/** Those who watch the round see it at once. */
function tellRound({ db, hub }: HasDb & HasHub, invitationId: number): void {
  const invited = findInvited(db, invitationId);
  if (invited) hub.tellOf(invitationId, invited.round.id);
}

/** Notes a step together with what others write in the same moment: thousands come in within a minute. */
const note = (
  { db, commits }: HasDb & HasCommits,
  invitationId: number,
  attempt: number,
  change: Partial<Arrival>,
) => commits.run(() => noteArrival(db, invitationId, attempt, change));

export async function confirmDetails(
  services: Needs,
  invitationId: number,
  correction: string | null,
): Promise<void> {
  const { attempt } = arriving(services, invitationId);
  const detailsAt = services.clock.now();
  await note(services, invitationId, attempt, { detailsAt, correction, correctionSettledAt: null });
  tellRound(services, invitationId);
}

export async function noteChecks(
  services: HasClock & HasDb & HasCommits,
  invitationId: number,
  results: CheckResult[],
  go: boolean,
): Promise<void> {
  const { attempt, invited } = arriving(services, invitationId);
  const missing = invited.round.settings.checks.filter((name) => !results.some((r) => r.name === name));
  if (go && missing.length > 0) throw badRequest('checksMissing', { missing });
  const checksAt = go ? { checksAt: services.clock.now() } : {};
  await note(services, invitationId, attempt, { checks: results, ...checksAt });
}

/** Keeps a picture of the candidate, or of an identity document; both are deleted after the retention time. */
export async function keepPicture(
  services: Needs,
  invitationId: number,
  of: 'person' | 'identity',
  bytes: unknown,
): Promise<void> {
  const { attempt, invited } = arriving(services, invitationId);
  if (of === 'identity' && !invited.round.settings.identityPicture) throw badRequest('noIdentityPicture');
  if (!(bytes instanceof Uint8Array)) throw badRequest('pictureBroken');
  const clean = await services.pictures.clean(bytes, String(invitationId));
  const now = services.clock.now();
  const file = {
    bytes: clean,
    type: 'image/jpeg',
    invitationId,
    attempt,
    purpose: of === 'person' ? 'picture' : 'identity',
    keepUntil: now + invited.round.settings.keptDays * DAY_MS,
  } as const;
  const taken = of === 'person' ? { pictureAt: now } : { identityAt: now };
  await services.files.keep(file, () => noteArrival(services.db, invitationId, attempt, taken));
}

/**
 * Goes on without the pictures that are not taken yet, where there is no camera; the record shows that there are none,
 * and the invigilator sees it.
 */
export async function goWithoutPicture(
  services: HasClock & HasDb & HasCommits,
  invitationId: number,
): Promise<void> {
  const { attempt, arrival } = arriving(services, invitationId);
  const camera = arrival?.checks?.find((check) => check.name === 'camera');
  if (camera?.outcome === 'good') throw conflict('camera-works');
  const now = services.clock.now();
  const [pictureAt, identityAt] = [arrival?.pictureAt ?? now, arrival?.identityAt ?? now];
  await note(services, invitationId, attempt, { pictureAt, identityAt });
}

export async function acceptRules(
  services: Needs,
  invitationId: number,
  version: string,
  accepted: readonly string[],
): Promise<void> {
  const { attempt, invited } = arriving(services, invitationId);
  const { rules } = paperOf(services.db, invited);
  if (rules.version !== version) throw conflict('rules-changed');
  if (rules.statements.some((s) => !accepted.includes(s.key))) throw badRequest('statementsOpen');
  const now = services.clock.now();
  await note(services, invitationId, attempt, { rulesVersion: version, rulesAt: now, waitingAt: now });
  tellRound(services, invitationId);
}

/** Wrong door codes before only the invigilator can open the door. */
export const DOOR_TRIES = 5;

/** Takes the door code; each wrong one counts and is on record. */
export async function enterDoorCode(services: Needs, invitationId: number, code: string): Promise<void> {
  const { db, clock, secret, commits } = services;
  const { attempt, invited, stage } = arriving(services, invitationId);
  const { id, opensAt, settings } = invited.round;
  if (stage.at !== 'arriving' || stage.step !== 'waiting' || settings.startRule !== 'door code')
    throw conflict('no-door');
  // Counted in the commit: of two codes in the same moment each is one.
  const triesSoFar = () => findArrival(db, invitationId, attempt)?.doorTries ?? 0;
  if (triesSoFar() >= DOOR_TRIES) throw conflict('door-shut');
  if (clock.now() < opensAt) throw conflict('not-open');
  if (!areSixDigits(code)) throw new ApiError(422, 'no-door-code');
  const subject = `round ${id}`;
  const tries = await commits.run(() => {
    const before = triesSoFar();
    if (before >= DOOR_TRIES) return before + 1;
    if (sameDigits(code, doorCodeOf(secret, id))) {
      noteArrival(db, invitationId, attempt, { admittedAt: clock.now() });
      record(services, { act: 'entered-by-door-code', subject, invitationId });
      return null;
    }
    noteArrival(db, invitationId, attempt, { doorTries: before + 1 });
    record(services, { act: 'gave-wrong-door-code', subject, invitationId });
    return before + 1;
  });
  tellRound(services, invitationId);
  if (tries !== null && tries > DOOR_TRIES) throw conflict('door-shut');
  if (tries !== null) throw wrongCode(DOOR_TRIES - tries);
}

const wrongCode = (left: number) =>
  new ApiError(422, 'wrong-code', left === 0 ? { key: 'wrongCodeLast' } : { values: { count: left } });
