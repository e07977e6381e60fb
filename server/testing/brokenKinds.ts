import type { AnyKeyKind, KeyKinds } from '../../core/kinds/keyKinds';
import { wholeComponent } from '../../core/kinds/shared/credits';
import { serveScoring } from '../scoring/serveScoring';

/* The scoring worker of tests: kinds that break the contract, beside one that keeps it. */

const kindThat = (score: () => unknown): AnyKeyKind =>
  ({
    values: () => ({}),
    buildsOn: () => [],
    components: (_: unknown, of: number) => wholeComponent(of),
    score,
  }) as unknown as AnyKeyKind;

const kinds: KeyKinds = {
  well: kindThat(() => [{ component: 'whole', hundredths: 100, of: 100, verdict: 'right', reasons: [] }]),
  throws: kindThat(() => {
    throw new Error('a rule of scoring broke');
  }),
  hangs: kindThat(() => {
    for (;;);
  }),
  nonsense: kindThat(() => ({ full: 'marks' })),
  grows: kindThat(() => {
    const all: number[][] = [];
    for (;;) all.push(new Array<number>(1e6).fill(1));
  }),
};

serveScoring(kinds);
