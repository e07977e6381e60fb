import type { Estimate } from '../measures/estimate';
import {
  adjacentAgreement,
  cohenKappa,
  exactAgreement,
  fleissKappa,
  meanAbsoluteDifference,
  meanDifference,
  spreadOfDifferences,
  weightedKappa,
  type Pair,
} from './agreement';
import { correlation, rankCorrelation } from '../measures/correlation';
import { krippendorffAlphas } from './alpha';
import { intraclass, type IntraclassForm } from './intraclass';

/** Both marks of one response, and who gave each. */
export interface PairByPeople {
  readonly assessors: readonly [first: number, second: number];
  readonly pair: Pair;
}

/** How far two assessors agree on the responses that both marked; differences are of the first less the second. */
export interface PairFigures {
  readonly assessors: readonly [number, number];
  readonly exact: Estimate;
  readonly kappa: Estimate;
  readonly linear: Estimate;
  readonly plain: Estimate;
  readonly pearson: Estimate;
  readonly spearman: Estimate;
  readonly difference: Estimate;
  readonly spread: Estimate;
}

export interface AgreementFigures {
  /** How many assessors these marks are of. */
  readonly people: number;
  readonly exact: Estimate;
  readonly adjacent: Estimate;
  readonly absolute: Estimate;
  /** Each response may have other assessors. */
  readonly intraclass: readonly { readonly form: IntraclassForm; readonly estimate: Estimate }[];
  readonly ordinal: Estimate;
  readonly interval: Estimate;
  readonly fleiss: Estimate;
  /** Pair by pair, those with most responses in common first. */
  readonly pairs: readonly PairFigures[];
}

/** The same pairs with the assessor of the lower number first: columns are people, not the order of marking. */
export const byPeople = (twice: readonly PairByPeople[]): PairByPeople[] =>
  twice.map(({ assessors: [a, b], pair: [x, y] }) =>
    a <= b ? { assessors: [a, b], pair: [x, y] } : { assessors: [b, a], pair: [y, x] },
  );

function pairFigures(twice: readonly PairByPeople[]): PairFigures[] {
  const groups = new Map<string, PairByPeople[]>();
  for (const one of twice) {
    const key = one.assessors.join();
    const own = groups.get(key);
    if (own) own.push(one);
    else groups.set(key, [one]);
  }
  return [...groups.values()]
    .toSorted((a, b) => b.length - a.length)
    .map((own) => {
      const pairs = own.map(({ pair }) => pair);
      return {
        assessors: own[0]!.assessors,
        exact: exactAgreement(pairs),
        kappa: weightedKappa(pairs),
        linear: cohenKappa(pairs, 'linear'),
        plain: cohenKappa(pairs, 'plain'),
        pearson: correlation(pairs),
        spearman: rankCorrelation(pairs),
        difference: meanDifference(pairs),
        spread: spreadOfDifferences(pairs),
      };
    });
}

/** With two assessors they are the columns; with more, each response has other ones. */
const FORMS_OF_TWO: readonly IntraclassForm[] = ['2,1', '3,1', '1,1', '2,k', '3,k', '1,k'];
const FORMS_OF_MORE: readonly IntraclassForm[] = ['1,1', '1,k'];

/**
 * How far the marks of an item agree. Whatever takes one mark as the first and the other as the second takes assessors for
 * that, never the order in which they marked: of more than two assessors it is told pair by pair alone.
 */
export function agreementOfPeople(twice: readonly PairByPeople[]): AgreementFigures {
  const ordered = byPeople(twice);
  const pairs = ordered.map(({ pair }) => pair);
  const people = new Set(ordered.flatMap(({ assessors }) => assessors)).size;
  return {
    people,
    exact: exactAgreement(pairs),
    adjacent: adjacentAgreement(pairs),
    absolute: meanAbsoluteDifference(pairs),
    intraclass: (people > 2 ? FORMS_OF_MORE : FORMS_OF_TWO).map((form) => ({
      form,
      estimate: intraclass(form, pairs),
    })),
    ...krippendorffAlphas(pairs),
    fleiss: fleissKappa(pairs),
    pairs: pairFigures(ordered),
  };
}
