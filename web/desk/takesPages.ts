import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import type { CandidatePaper } from '../../core/papers/candidatePaper';

/** Whether answers of this paper can have pages; of a section that is still sealed nobody knows. */
export const takesPages = ({ questions }: CandidatePaper): boolean =>
  questions.some(
    ({ sealed, parts }) => sealed || parts.some(({ kind }) => candidateKindOf(kind).takePages !== undefined),
  );
