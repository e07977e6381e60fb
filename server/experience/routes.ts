import { and, count, eq, isNull } from 'drizzle-orm';
import Joi from 'joi';
import {
  experienceQuestions,
  LEVELS,
  type ExperienceAnswers,
  type ExperienceReport,
} from '../../core/experience/api';
import { arrivalView } from '../arrival/operations';
import { arrivalStateOf } from '../candidates/state';
import { experience, invitations } from '../db/schema';
import { forCandidates, forRoundStaff, idParams, type Endpoint } from '../http/endpoint';
import { conflict } from '../http/errors';
import type { Read } from '../reading/read';
import type { Services } from '../services';

const answersBody = Joi.object<ExperienceAnswers>({
  answers: Joi.object()
    .pattern(Joi.valid(...experienceQuestions), Joi.valid(...LEVELS))
    .required(),
  comment: Joi.string().trim().max(2000).allow('').required(),
});

/** Keeps what a candidate says of the test, once, apart from the script and without a name. */
function keepExperience(services: Services, invitation: number, said: ExperienceAnswers): void {
  const { db, clock } = services;
  const { invited, stage } = arrivalStateOf(services, invitation);
  const handedIn = stage.at === 'being marked' || stage.at === 'result';
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

/** What was said in a round. Read a row at a time into counts: there is one for each candidate at most. */
export const experienceRead: Read<{ readonly round: number }, ExperienceReport> = {
  name: 'experience',
  run: ({ db }, { round }) => {
    const own = eq(experience.roundId, round);
    const { n } = db.select({ n: count() }).from(experience).where(own).get()!;
    const rows = db.select().from(experience).where(own).all();
    const counted = experienceQuestions.map(
      (question) =>
        [question, LEVELS.map((level) => rows.filter((r) => r.answers[question] === level).length)] as const,
    );
    const comments = rows.map((row) => row.comment).filter((comment) => comment !== '');
    return {
      answered: n,
      counts: Object.fromEntries(counted) as unknown as ExperienceReport['counts'],
      // By their words: the order in which they came would tell who wrote them.
      comments: comments.sort((a, b) => (a < b ? -1 : 1)),
    };
  },
};

export function experienceEndpoints(services: Services): Endpoint[] {
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
