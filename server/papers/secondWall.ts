import type { FullPaper } from '../../core/papers/paper';
import { runsPrograms } from '../../core/scoring/script';
import { conflict } from '../http/errors';
import type { HasSandbox } from '../sandbox/sandbox';

/** Where programs may only be run behind a second wall, and there is none, nobody is to sit a paper with programs. */
export function refuseWithoutWall({ sandbox }: HasSandbox, paper: () => FullPaper): void {
  if (!sandbox.allowed && runsPrograms(paper())) throw conflict('no-second-wall');
}
