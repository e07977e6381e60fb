/** What candidates are asked about the test after they have handed in; each is answered from 1 (no) to 5 (yes). */
export const experienceQuestions = ['instructions', 'time', 'program', 'questions'] as const;
export type ExperienceQuestion = (typeof experienceQuestions)[number];

export const LEVELS = [1, 2, 3, 4, 5] as const;

/** A question may be left open. */
export interface ExperienceAnswers {
  readonly answers: Readonly<Partial<Record<ExperienceQuestion, number>>>;
  readonly comment: string;
}

/** For the coordinator: how often each level was chosen, and the comments, in no order of persons or times. */
export interface ExperienceReport {
  readonly answered: number;
  readonly counts: Readonly<Record<ExperienceQuestion, readonly number[]>>;
  readonly comments: readonly string[];
}
