import type { Document } from '../../documents/document';
import type { Rubric, ToldCriteria } from '../shared/rubric';

export interface OnPaperAsked {
  readonly sheet: Document;
  readonly criteria: ToldCriteria;
}

export interface OnPaperKey {
  readonly rubric: Rubric;
}
