import { count, eq } from 'drizzle-orm';
import { experienceQuestions, LEVELS, type ExperienceReport } from '../../core/experience/api';
import { experience } from '../db/schema';
import type { Read } from '../reading/read';

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
