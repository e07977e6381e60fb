import { and, eq, isNull } from 'drizzle-orm';
import Joi from 'joi';
import { objectOf, oneOf } from '../../core/validation/shapes';
import { experienceQuestions, LEVELS, type ExperienceAnswers } from '../../core/experience/api';
import { arrivalView } from '../arrival/operations';
import { arrivalStateOf } from '../candidates/state';
import { experience, invitations } from '../db/schema';
import { forCandidates, forRoundStaff, idParams, type Endpoint } from '../http/endpoint';
import { conflict } from '../http/errors';
import { experienceRead } from './reads';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasFiles } from '../files/files';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasPictures } from '../pictures/pictures';
import type { HasReader } from '../reading/reader';
import type { HasTime } from '../sittings/timeKeeper';

/** What is needed here of the server. */
interface Needs
  extends
    HasConfig,
    HasClock,
    HasDb,
    HasCommits,
    HasTime,
    HasHub,
    HasFiles,
    HasPictures,
    HasReader,
    HasSecret {}

const answersBody = objectOf<ExperienceAnswers>({
  answers: Joi.object().pattern(oneOf(experienceQuestions), oneOf(LEVELS)),
  comment: Joi.string().trim().max(2000).allow(''),
});

/** Keeps what a candidate says of the test, once, apart from the script and without a name. */
function keepExperience(services: HasClock & HasDb, invitation: number, said: ExperienceAnswers): void {
  const { db, clock } = services;
  const { invited, stage } = arrivalStateOf(services, invitation);
  const handedIn = stage.at === 'being marked' || stage.at === 'between' || stage.at === 'result';
  if (!invited.round.settings.questionnaire || !handedIn) throw conflict('no-questionnaire');
  db.transaction(() => {
    const open = and(eq(invitations.id, invitation), isNull(invitations.questionnaireAt));
    const taken = db.update(invitations).set({ questionnaireAt: clock.now() }).where(open).run();
    if (taken.changes === 0) throw conflict('questionnaire-given');
    db.insert(experience)
      .values({ roundId: invited.round.id, ...said })
      .run();
  });
}

export function experienceEndpoints(services: Needs): Endpoint[] {
  return [
    forCandidates({ method: 'post', path: '/arrival/questionnaire', body: answersBody }, (who, { body }) => {
      keepExperience(services, who.invitation, body);
      return arrivalView(services, who.invitation);
    }),
    forRoundStaff(
      ['coordinator'],
      { method: 'get', path: '/rounds/:id/experience', params: idParams },
      (_, { params }) => services.reader.read(experienceRead, { round: params.id }),
    ),
  ];
}
