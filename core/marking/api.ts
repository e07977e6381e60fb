import type { RoughWork } from '../kit/notes';
import type { Document } from '../documents/document';
import type { KindName } from '../kinds/kindNames';
import type { Component, Credit } from '../kinds/contract';
import type { Hundredths } from '../marks';
import type { Source } from '../papers/paper';

/** A pile of responses to the same part, waiting for assessors. */
export interface MarkingPile {
  readonly round: number;
  readonly roundTitle: string;
  readonly target: string;
  readonly itemNumber: number;
  readonly title: string;
  readonly marks: Hundredths;
  readonly byYou: number;
  readonly left: number;
}

/** One response as an assessor sees it: a script code and an answer, nothing of the person. */
export interface MarkingScript {
  readonly task: number;
  readonly script: string;
  readonly kind: KindName;
  readonly shown: unknown;
  readonly response: unknown;
  /** The right answer, where the machine should have scored it and could not. */
  readonly right: unknown;
  /** What is to be decided here; what the machine could not score is among it. */
  readonly components: readonly Component[];
  /** What the machine gave the rest of the part. */
  readonly credits: readonly Credit[];
  /** Of the whole sitting; null where the paper does not show it, or there is none. It is never marked. */
  readonly roughWork: RoughWork | null;
}

/** What stays the same while an assessor goes through a pile. */
export interface MarkingTableData extends MarkingPile {
  readonly prompt: Document;
  readonly source: Source | null;
  readonly scheme: Document;
  readonly scripts: readonly MarkingScript[];
}

export interface SignOffState {
  readonly round: number;
  readonly title: string;
  readonly handedIn: number;
  readonly running: number;
  readonly beingScored: number;
  /** Decisions that a coordinator has yet to make. */
  readonly toDecide: number;
  readonly unmarked: number;
  readonly signedOffAt: number | null;
  readonly releasedAt: number | null;
  readonly piles: readonly {
    title: string;
    itemNumber: number;
    marked: number;
    left: number;
    mean: number | null;
    marks: Hundredths;
  }[];
}
